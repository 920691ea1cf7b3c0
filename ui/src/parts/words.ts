import type { Catalogue } from "../api/client";

export type Term = Catalogue["terms"][number];

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
