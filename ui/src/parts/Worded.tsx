import { useId, useMemo } from "react";
import { Link } from "react-router";
import { useCatalogue } from "../api/workshop";
import { useQuiet } from "./quiet";
import { cut, type Term } from "./words";

/** Text in which the first of each word of the trade can be opened. */
export function Worded({ children }: { children: string }) {
  const terms = useCatalogue(useQuiet()).data?.terms;
  const parts = useMemo(() => cut(children, terms ?? []), [children, terms]);
  return (
    <>
      {parts.map((part) =>
        typeof part === "string" ? part : <Word key={part.at} word={part.word} term={part.term} />,
      )}
    </>
  );
}

/** A word, and what it means: the browser's own popover, at the foot of the screen, Escape closes it. */
function Word({ word, term }: { word: string; term: Term }) {
  const id = useId();
  return (
    <>
      <button
        type="button"
        popoverTarget={id}
        className="inline cursor-help underline decoration-dotted underline-offset-4"
      >
        {word}
      </button>
      <span
        id={id}
        popover="auto"
        role="dialog"
        aria-label={term.name}
        className="inset-x-0 top-auto bottom-0 m-0 w-full border-0 border-t-4 border-ink bg-enamel p-4 text-base font-normal text-ink"
      >
        <strong>{term.name}.</strong> {term.says}{" "}
        <Link to={`/help#${term.slug}`} className="inline-flex min-h-6 items-center underline">
          All words
        </Link>
      </span>
    </>
  );
}
