import type { Edit, Job, JobReply, Plan, Saved, Taken } from "../api/client";
import type { Patch } from "./patch";

export type SaveState = "saved" | "saving" | "waiting" | "changed elsewhere" | "refused";

/** A save that was sent and not answered yet: sent again as it was, under the same key, until it is. */
export interface Sent {
  job: Job;
  revision: number;
  key: string;
}

/** An edit that waits its turn: plain values to set, or something only Lumso can decide. */
export type Queued =
  | { kind: "set"; label: string; patch: Patch }
  | { kind: "edit"; label: string; edit: Edit };

/** What is kept in the browser until the server has it. */
export interface Kept {
  version: 3;
  revision: number;
  base: Job;
  queue: Queued[];
  sent: Sent | null;
  refused: Refusal[];
}

/** An edit that Lumso refused: what was entered, and why. */
export interface Refusal {
  label: string;
  says: string;
  entered: Queued;
}

/** No answer came: the server is stopped, or made a mistake of its own. Anything else thrown is a refusal. */
export class Unanswered extends Error {}
/** The job was changed elsewhere since it was read. */
export class Overtaken extends Error {}

/** All that a session asks of the world. */
export interface Outside {
  load(): Promise<JobReply>;
  edit(job: Job, edit: Edit): Promise<{ job: Job; taken: Taken[] }>;
  plan(job: Job, zone: string, signal: AbortSignal): Promise<Plan>;
  save(sent: Sent): Promise<Saved>;
  step(way: "undo" | "redo", revision: number, key: string): Promise<JobReply>;
  /** What was kept of the job by a page that is no more, or this one. */
  kept(): Promise<Kept | null>;
  /** Keep what is not saved; false where the browser keeps nothing. */
  keep(kept: Kept | null): Promise<boolean>;
  newKey(): string;
  now(): number;
  later(ms: number, run: () => void): () => void;
}

/** What is on the screen. */
export interface Shown {
  job: Job;
  plan: Plan;
  saveState: SaveState;
  /** Whether what is not saved is kept in this browser. */
  kept: boolean;
  says: string;
  /** Edits that Lumso has not worked out yet, in words. */
  waiting: string[];
  refused: Refusal[];
  /** Whether the amounts are older than the last edit. */
  stale: boolean;
  undo: string | null;
  redo: string | null;
  /** How many versions were let go, by their age, before the one undo goes back to. */
  gap: number;
}
