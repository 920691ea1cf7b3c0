/** An edit of a document of the workshop that the server has not confirmed yet. */
export interface Edit {
  version: 1;
  /** The document, such as "kit/loft-drawer". */
  doc: string;
  /** What it is called, for people. */
  label: string;
  method: "PUT" | "DELETE";
  path: string;
  body: unknown;
  /** The revision it was made from; null where it follows an edit whose revision is not known yet. */
  read: number | null;
  /** A key of its own: however often it is sent, it is made once. */
  key: string;
  /** The page that holds it. */
  page: string;
  at: number;
  /** Whether it was ever sent: then what it holds may be saved already. */
  tried: boolean;
  /** Why it was refused; null while it waits its turn. */
  says: string | null;
  /** Changed elsewhere: the revision that counts there. */
  head: number | null;
}

/** What somebody changed, before it is one of the edits that wait. */
export type Change = Pick<Edit, "doc" | "label" | "method" | "path" | "body" | "key" | "page" | "at"> & {
  read: number;
};

/** The last edit of a document that a page holds. */
export const lastOf = (edits: Edit[], { doc, page }: Pick<Edit, "doc" | "page">) =>
  edits.findLast((e) => e.doc === doc && e.page === page);

/** The edit that the same page made of the same document after one of them. */
const nextOf = (edits: Edit[], key: string) => {
  const at = edits.findIndex((e) => e.key === key);
  const mine = edits[at];
  return mine && edits.slice(at + 1).find((e) => e.doc === mine.doc && e.page === mine.page);
};
const without = (edits: Edit[], key: string) => edits.filter((e) => e.key !== key);

/**
 * The edits with one more. A document is edited whole: what was never sent gives way to what is newer, and so does what
 * was refused. What may be saved already stays in front, and this one is made from what that comes to. What another
 * page holds is left to it.
 */
export function added(edits: Edit[], change: Change): Edit[] {
  const fresh = { version: 1, tried: false, says: null, head: null } as const;
  const last = lastOf(edits, change);
  if (!last) return [...edits, { ...change, ...fresh }];
  if (last.head !== null) return edits.map((e) => (e === last ? { ...e, ...change, read: e.read } : e));
  if (last.tried && last.says === null) return [...edits, { ...change, ...fresh, read: null }];
  return edits.map((e) => (e === last ? { ...change, ...fresh, read: e.read } : e));
}

/** The edits after one of them was saved as a revision. */
export function settled(edits: Edit[], key: string, revision: number): Edit[] {
  const next = nextOf(edits, key);
  return without(
    edits.map((e) => (e === next && e.read === null ? { ...e, read: revision } : e)),
    key,
  );
}

/** The edits after one of them was refused. One that follows it holds all that it held: it takes its place. */
export function refused(edits: Edit[], key: string, says: string, head: number | null): Edit[] {
  const mine = edits.find((e) => e.key === key);
  if (!mine) return edits;
  const next = nextOf(edits, key);
  if (!next) return edits.map((e) => (e === mine ? { ...e, says, head } : e));
  const heir = head === null ? { ...next, read: mine.read } : { ...next, read: mine.read, says, head };
  return without(
    edits.map((e) => (e === next ? heir : e)),
    key,
  );
}

/** The edits with those of pages that are no more taken over by one that is. */
export function takenOver(edits: Edit[], page: string, alive: ReadonlySet<string>): Edit[] {
  return edits.map((e) => (alive.has(e.page) ? e : { ...e, page }));
}

/** The edits with one of them about to be sent. */
export function sending(edits: Edit[], key: string): Edit[] {
  return edits.map((e) => (e.key === key ? { ...e, tried: true } : e));
}

/** The edits with a refused one to be sent again, over what was changed elsewhere, under a key of its own. */
export function again(edits: Edit[], key: string, freshKey: string): Edit[] {
  return edits.map((e) =>
    e.key === key ? { ...e, key: freshKey, tried: false, says: null, head: null, read: e.head ?? e.read } : e,
  );
}

/** The edits with one of them let go. */
export function letGo(edits: Edit[], key: string): Edit[] {
  const mine = edits.find((e) => e.key === key);
  const next = nextOf(edits, key);
  return without(
    edits.map((e) => (e === next && e.read === null ? { ...e, read: mine?.read ?? 0 } : e)),
    key,
  );
}
