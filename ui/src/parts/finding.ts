/** One of a list that is chosen by typing: its name, what else it is looked for by, and where it belongs. */
export interface Option {
  slug: string;
  name: string;
  says?: string;
  words?: readonly string[];
  group?: string;
}

/** A word people look for things by, and the words of the book it stands for. */
export interface Meaning {
  word: string;
  means: readonly string[];
}

const plain = (text: string): string =>
  text
    .normalize("NFD")
    .replace(/\p{Diacritic}/gu, "")
    .toLowerCase()
    .trim();
const squeezed = (text: string): string => plain(text).replace(/[^\p{L}\p{N}]/gu, "");
const wordsOf = (text: string): string[] => plain(text).split(/[^\p{L}\p{N}]+/u);

/** How well a text answers what is typed: 0 best, null not at all. Every word of it must begin one of the text's. */
function fits(text: string, typed: string): number | null {
  const whole = squeezed(typed);
  const mine = squeezed(text);
  if (mine === whole) return 0;
  if (mine.startsWith(whole)) return 1;
  const words = wordsOf(text);
  const asked = wordsOf(typed).filter(Boolean);
  if (asked.every((a) => words.some((w) => w.startsWith(a)))) return 2;
  return whole.length > 2 && mine.includes(whole) ? 3 : null;
}

/** What is typed, and what it stands for. */
function meanings(typed: string, synonyms: readonly Meaning[]): string[] {
  const whole = squeezed(typed);
  if (whole.length < 3) return [];
  return synonyms.filter((s) => squeezed(s.word).startsWith(whole)).flatMap((s) => [...s.means]);
}

const BY_WORD = 4;
const BY_MEANING = 8;
const BY_LOOKS = 20;

function rank(option: Option, typed: string, means: readonly string[]): number | null {
  const ways: number[] = [];
  const name = fits(option.name, typed);
  if (name !== null) ways.push(name);
  for (const word of option.words ?? []) {
    const way = fits(word, typed);
    if (way !== null) ways.push(way + BY_WORD);
  }
  means.forEach((meaning, i) => {
    const way = fits(option.name, meaning);
    if (way !== null) ways.push(way + BY_MEANING + Math.min(i, 2) * 4);
  });
  const about = fits(`${option.group ?? ""} ${option.says ?? ""}`, typed);
  if (about !== null) ways.push(about + BY_LOOKS);
  return ways.length ? Math.min(...ways) : null;
}

/**
 * The options that answer what is typed, the best first: by name, by another word for it, by what a word stands for, by
 * looks. With nothing typed all of them, those used last first.
 */
export function found<O extends Option>(
  options: readonly O[],
  typed: string,
  synonyms: readonly Meaning[] = [],
  recent: readonly string[] = [],
): O[] {
  const last = (o: O) => {
    const at = recent.indexOf(o.slug);
    return at < 0 ? recent.length : at;
  };
  if (!squeezed(typed)) return [...options].sort((a, b) => last(a) - last(b));
  const means = meanings(typed, synonyms);
  return options
    .map((option, at) => ({ option, at, rank: rank(option, typed, means) }))
    .filter((o): o is typeof o & { rank: number } => o.rank !== null)
    .sort((a, b) => a.rank - b.rank || last(a.option) - last(b.option) || a.at - b.at)
    .map((o) => o.option);
}

const MOST_RECENT = 8;
const place = (of: string) => `lumso-last/${of}`;

/** What was chosen last in a list, the latest first. */
export function lastUsed(of: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place(of)) ?? "[]");
    return Array.isArray(kept) ? kept.filter((s): s is string => typeof s === "string") : [];
  } catch {
    return [];
  }
}

/** Remember what was chosen. A browser that keeps nothing shows the list in its own order. */
export function usedLast(of: string, slug: string): void {
  try {
    const next = [slug, ...lastUsed(of).filter((s) => s !== slug)].slice(0, MOST_RECENT);
    localStorage.setItem(place(of), JSON.stringify(next));
  } catch {
    // nothing is remembered
  }
}
