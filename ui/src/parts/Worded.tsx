import { Popover } from "radix-ui";
import { useMemo } from "react";
import { Link } from "react-router";
import { useCatalogue } from "../api/workshop";
import { cut, type Term } from "./words";

/** Text in which the first of each word of the trade can be opened. */
export function Worded({ children }: { children: string }) {
  const terms = useCatalogue().data?.terms;
  const parts = useMemo(() => cut(children, terms ?? []), [children, terms]);
  return (
    <>
      {parts.map((part) =>
        typeof part === "string" ? part : <Word key={part.at} word={part.word} term={part.term} />,
      )}
    </>
  );
}

function Word({ word, term }: { word: string; term: Term }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="inline cursor-help underline decoration-dotted underline-offset-4">
        {word}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={8}
          aria-label={term.name}
          className="z-30 w-[min(22rem,92vw)] border-2 border-ink bg-enamel p-3"
        >
          <strong>{term.name}.</strong> {term.says}{" "}
          <Link to={`/help#${term.slug}`} className="inline-flex min-h-6 items-center underline">
            All words
          </Link>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
