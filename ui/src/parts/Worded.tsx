import { Popover } from "radix-ui";
import { useMemo } from "react";
import { Link } from "react-router";
import type { Catalogue } from "../api/client";
import { useCatalogue } from "../api/workshop";

type Term = Catalogue["terms"][number];

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

interface Found {
  at: number;
  word: string;
  term: Term;
}

/** The text in pieces: plain ones, and the first of each word of the trade. Longer words go before shorter ones. */
export function cut(text: string, terms: readonly Term[]): (string | Found)[] {
  const found: Found[] = [];
  const forms = terms.flatMap((term) => term.forms.map((form) => ({ term, form })));
  for (const { term, form } of forms.sort((a, b) => b.form.length - a.form.length)) {
    if (found.some((f) => f.term === term)) continue;
    const at = text.search(new RegExp(`(?<![\\p{L}-])${form}(?![\\p{L}-])`, "iu"));
    if (at < 0 || found.some((f) => at < f.at + f.word.length && f.at < at + form.length)) continue;
    found.push({ at, word: text.slice(at, at + form.length), term });
  }
  found.sort((a, b) => a.at - b.at);
  const parts: (string | Found)[] = [];
  let from = 0;
  for (const one of found) {
    parts.push(text.slice(from, one.at), one);
    from = one.at + one.word.length;
  }
  return [...parts, text.slice(from)].filter((p) => p !== "");
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
