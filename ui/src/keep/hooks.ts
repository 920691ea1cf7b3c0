import { createContext, useContext, useEffect, useMemo, useSyncExternalStore } from "react";
import type { Edit } from "./edits";
import type { Keeping } from "./keeping";

const Here = createContext<Keeping | null>(null);

export const KeepingProvider = Here.Provider;

/** What this page keeps, and where. */
export function useKeeping(): Keeping {
  const keeping = useContext(Here);
  if (!keeping) throw new Error("Nothing is kept here.");
  return keeping;
}

/** The edits that wait. */
export function useEdits(): Edit[] {
  const { outbox } = useKeeping();
  return useSyncExternalStore(outbox.subscribe, outbox.all);
}

/** Jobs that this page works on and that are not saved, or not wholly. */
export function useUnsavedJobs() {
  const { sessions } = useKeeping();
  return useSyncExternalStore(sessions.subscribe, sessions.unsaved);
}

/** How much waits, and whether something of it needs somebody. */
export function useWaiting(): { count: number; refused: number } {
  const edits = useEdits();
  const jobs = useUnsavedJobs();
  const stuck = jobs.filter(({ session }) => session?.isStuck()).length;
  const refused = edits.filter((e) => e.says !== null).length + stuck;
  return { count: edits.length + jobs.length, refused };
}

interface Kind<T> {
  /** Of which kind the documents are: "kit". */
  kind: string;
  list: T[];
  slug: (entry: T) => string;
  /** The revision the server has of it. */
  revision: (entry: T) => number;
  /** The entry with what was kept of it; a new one where there is none. */
  made: (body: unknown, entry: T | undefined) => T;
  /** Whether one that is not in the list belongs into it; all do, where nothing is said. */
  joins?: (body: unknown) => boolean;
}

/** A list as it was edited here: with what waits, and with what was saved and is not seen yet. */
export function useEdited<T>({ kind, list, slug, revision, made, joins = () => true }: Kind<T>): T[] {
  const { outbox } = useKeeping();
  const edits = useEdits();
  // biome-ignore lint/correctness/useExhaustiveDependencies: how it is told follows from the kind
  useEffect(() => {
    for (const entry of list) outbox.seen(`${kind}/${slug(entry)}`, revision(entry));
  }, [list, outbox, kind]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: how it is told follows from the kind
  return useMemo(() => {
    const bodies = new Map<string, unknown>();
    for (const [doc, kept] of outbox.saved) {
      const entry = list.find((e) => `${kind}/${slug(e)}` === doc);
      if (doc.startsWith(`${kind}/`) && kept.revision > (entry ? revision(entry) : 0))
        bodies.set(doc, kept.body);
    }
    for (const edit of edits)
      if (edit.doc.startsWith(`${kind}/`) && edit.method === "PUT") bodies.set(edit.doc, edit.body);
    if (!bodies.size) return list;
    const told = list.map((entry) => {
      const doc = `${kind}/${slug(entry)}`;
      if (!bodies.has(doc)) return entry;
      const body = bodies.get(doc);
      bodies.delete(doc);
      return made(body, entry);
    });
    const fresh = [...bodies.values()].filter(joins);
    return [...told, ...fresh.map((body) => made(body, undefined))];
  }, [list, edits, outbox, kind]);
}

export type KeptState = {
  state: "saved" | "kept here" | "not kept" | "refused";
  says: string;
};

/** What became of the last edit of a document. */
export function useKept(doc: string): KeptState {
  const { outbox } = useKeeping();
  const edit = useEdits().findLast((e) => e.doc === doc);
  if (!edit) return { state: "saved", says: "" };
  if (edit.says !== null) return { state: "refused", says: edit.says };
  return { state: outbox.lasting ? "kept here" : "not kept", says: "" };
}
