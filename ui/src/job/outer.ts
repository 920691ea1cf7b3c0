import type { Edit, Job, JobChanged, JobReply, Plan } from "../api/client";
import type { Patch } from "./patch";

export type SaveState = "saved" | "saving" | "waiting" | "changed elsewhere" | "refused";

/** A whole job that an earlier version of this page had sent, or was to send: saved first, under its key. */
export interface Whole {
  job: Job;
  revision: number;
  key: string;
}

/** The first `count` that wait were sent under a key: sent again as they were until they are answered. */
export interface Sent {
  key: string;
  count: number;
  read: number;
  goesOn: boolean;
}

/** What was done and is not confirmed: plain values set, what only Lumso can decide, or something taken back. */
export type Queued = { key: string; label: string } & (
  | { kind: "set"; patch: Patch }
  | { kind: "edit"; edit: Edit }
  | { kind: "back"; of: string }
);

/** What was done, before it has a key. */
export type Doing = Queued extends infer Q ? (Q extends Queued ? Omit<Q, "key"> : never) : never;

/** What is kept in the browser until the server has it. */
export interface Kept {
  version: 4;
  revision: number;
  base: Job;
  queue: Queued[];
  sent: Sent | null;
  refused: Refusal[];
  whole: Whole | null;
}

/** An edit that Lumso refused: what was entered, and why. */
export interface Refusal {
  label: string;
  says: string;
  entered: Queued;
}

/** What is asked of a job in one trip: what was done since a revision was read, and which plan is held. */
export interface Asking {
  read: number;
  goesOn: boolean;
  key: string;
  /** What was taken back is never sent as such. */
  queue: Exclude<Queued, { kind: "back" }>[];
  zone: string;
  holds: string;
}

/** No answer came: the server is stopped, or made a mistake of its own. Anything else thrown is a refusal. */
export class Unanswered extends Error {}
/** The job was changed elsewhere since it was read. */
export class Overtaken extends Error {}
/** What was sent cannot be read at all. */
export class Unfit extends Error {}

/** All that a session asks of the world. */
export interface Outside {
  load(zone: string): Promise<JobReply>;
  change(asking: Asking, signal: AbortSignal): Promise<JobChanged>;
  /** Save a whole job, as earlier versions of this page did; and what it is then. */
  save(whole: Whole): Promise<JobReply>;
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
