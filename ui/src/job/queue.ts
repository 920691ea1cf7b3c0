import type { Job, Taken } from "../api/client";
import { shownWith } from "./edits";
import type { Queued, Sent } from "./outer";
import { diff, type Patch, patched } from "./patch";

/** How something done is taken back, or done again: it waits once more, or what took it back is taken back. */
export type Way = { again: Queued } | { key: string; of: string };

/** What was done to a job and waits, in order; and how what was confirmed is taken back. */
export class Queue {
  items: Queued[] = [];
  /** The first of them that were sent, and not answered yet. */
  sent: Sent | null = null;
  private inverse = new Map<string, Patch>();
  private answers = new Map<string, (taken: Taken[] | null) => void>();

  /** The job as it is with all that waits, as far as that is plain. */
  shownOn(base: Job | null): Job | null {
    const backs = new Set(this.items.map((q) => (q.kind === "back" ? q.of : "")));
    return this.items.reduce<Job | null>((job, q) => {
      if (!job || q.kind === "back" || backs.has(q.key)) return job;
      return q.kind === "set" ? patched(job, q.patch) : shownWith(job, q.edit);
    }, base);
  }

  isUnsent(key: string): boolean {
    return this.items.findIndex((q) => q.key === key) >= (this.sent?.count ?? 0);
  }

  push(queued: Queued): string {
    const inverse = queued.kind === "back" ? this.inverse.get(queued.of) : undefined;
    const { key, label } = queued;
    this.items = [...this.items, inverse ? { kind: "set", key, label, patch: inverse } : queued];
    return key;
  }

  /** Take a change back: one that was never sent is let go; another is undone by a change of its own. */
  takeBack(label: string, of: string, key: string): Way {
    const waits = this.items.find((q) => q.key === of);
    if (waits && this.isUnsent(of)) {
      this.items = this.items.filter((q) => q !== waits);
      return { again: waits };
    }
    return { key: this.push({ kind: "back", key, label, of }), of };
  }

  /** Whether a change that waits is to be taken back as soon as it is confirmed. */
  goesBack = (key: string): boolean => this.items.some((q) => q.kind === "back" && q.of === key);

  /** A change made `after` of `before`. */
  confirmed(key: string, before: Job, after: Job): void {
    this.inverse.set(key, diff(after, before));
  }

  /** What was done of itself by the edit of a seed, once it is answered; null where it was refused. */
  answer(seed: string): Promise<Taken[] | null> {
    return new Promise((resolve) => this.answers.set(seed, resolve));
  }

  answered(entered: Queued | undefined, taken: Taken[] | null): void {
    if (entered?.kind !== "edit") return;
    this.answers.get(entered.edit.seed)?.(taken);
    this.answers.delete(entered.edit.seed);
  }

  /** What was sent is answered: what waited to be taken back can be, and what was refused need not. */
  settled(): void {
    const rest = this.items.slice(this.sent?.count ?? 0);
    Object.assign(this, { items: [], sent: null });
    for (const q of rest) if (q.kind !== "back" || this.inverse.has(q.of)) this.push(q);
  }

  /** What was sent is not made: it waits again, but for what was taken back meanwhile. */
  unsent(): void {
    const backs = new Set(this.items.map((q) => (q.kind === "back" ? q.of : "")));
    this.items = this.items.filter((q) => q.kind !== "back" && !backs.has(q.key));
    this.sent = null;
  }
}
