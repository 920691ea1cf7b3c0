import type { BenchOp, Noted } from "../api/client";

/** The states in which nothing is left to do; what went wrong is to be done again. */
export const OVER = new Set(["done", "skipped"]);
export const WORDS: Record<string, string> = {
  done: "done",
  skipped: "left out",
  "gone wrong": "gone wrong",
  begun: "begun",
};

/** The operations with what is noted here and not yet answered laid over what the bench last said. */
export function withStates(operations: BenchOp[], unsent: { noted: Noted }[]): BenchOp[] {
  const states = new Map<string, BenchOp["state"]>();
  for (const { noted } of unsent)
    if (noted.operation && noted.did !== "noted" && noted.did !== "corrected")
      states.set(noted.operation, noted.did === "retracted" ? "planned" : noted.did);
  return operations.map((o) => {
    const state = states.get(o.operation.id);
    return state && !OVER.has(o.state) ? { ...o, state } : o;
  });
}

/** The place of what is next: the one the bench names, or the first that is not over; -1 where all is done. */
export function nextOf(operations: BenchOp[], served: number): number {
  const there = operations[served];
  if (there && !OVER.has(there.state)) return served;
  return operations.findIndex((o) => !OVER.has(o.state));
}

/** The operation that was laid last; undefined where nothing was. */
export const lastLaid = (operations: BenchOp[]): BenchOp | undefined =>
  operations
    .filter((o) => o.state === "done" && o.operation.kind === "lay" && o.at_min !== null)
    .sort((x, y) => (y.at_min ?? 0) - (x.at_min ?? 0))[0];
