import type { Edit, Job, JobChanged, JobReply, Plan, Taken } from "../api/client";
import { History } from "./history";
import {
  type Asking,
  type Doing,
  type Kept,
  type Outside,
  Overtaken,
  type Queued,
  type Refusal,
  type SaveState,
  type Sent,
  type Shown,
  Unanswered,
  Unfit,
  type Whole,
} from "./outer";
import { diff, named, type Patch, sameSpot } from "./patch";
import { Queue } from "./queue";
import { ServerStep, type StepWay } from "./serverStep";
import { broughtBy, planOf } from "./trip";
import { Wanted } from "./wanted";

const TRY_AGAIN_MS = 2000;
const GOES_ON_MS = 1000;

/**
 * A job that is being worked on, whatever shows it. What is done shows at once, as far as it is plain, and waits in
 * order; all that waits goes up in one trip, and what came of it comes down: the job, the amounts, what others did.
 * Undo and redo need no server: what is confirmed is taken back by a change of its own, what is not is let go.
 */
export class JobSession {
  private base: Job | null = null;
  private revision = 0;
  /** The revision that was made here last. */
  private typedAt = 0;
  private server = { undo: false, redo: false, gap: 0 };
  private plan: Plan | null = null;
  private planId = "";
  private readonly queue = new Queue();
  private whole: Whole | null = null;
  private refused: Refusal[] = [];
  /** What was confirmed last, where typing may go on. */
  private spot: { patch: Patch; at: number } | null = null;
  private state: SaveState = "saved";
  private says = "";
  private readonly wanted = new Wanted();
  private asking: AbortController | null = null;
  private readonly steps: ServerStep;
  private kept = true;
  private stopTimer: (() => void) | null = null;
  private listeners = new Set<() => void>();
  private view: Shown | null = null;
  failed: Error | null = null;

  private readonly history: History;

  constructor(private readonly outside: Outside) {
    this.history = new History(this.queue, outside.newKey);
    this.steps = new ServerStep(outside);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  shown = (): Shown | null => this.view;

  /** Why it could not be opened; null where it was. */
  why = (): Error | null => this.failed;

  /** Whether something of it goes on only when somebody says how. */
  isStuck = (): boolean =>
    this.refused.length > 0 || this.state === "refused" || this.state === "changed elsewhere";

  /** Open the job, with what was left unsaved of it in this browser. */
  async open(): Promise<void> {
    this.failed = null;
    try {
      const got = await this.outside.load(this.wanted.zone);
      const left = await this.outside.kept();
      this.take(got);
      if (left) {
        // What is not saved is there before anybody is told: nobody is to think it done.
        const { revision, base, refused, whole } = left;
        Object.assign(this, { revision, base, refused, whole });
        this.wanted.anything = true;
        Object.assign(this.queue, { items: left.queue, sent: left.sent });
      }
      this.run();
    } catch (error) {
      this.failed = error as Error;
      this.emit();
    }
  }

  /** Set plain values: shown and kept at once. */
  edit = (change: (job: Job) => Job, label?: string): void => {
    const before = this.queue.shownOn(this.base);
    if (!before) return;
    const patch = diff(before, change(before));
    if (!patch.length) return;
    const at = this.outside.now();
    const last = this.queue.items.at(-1);
    const goesOn = this.spot !== null && sameSpot(this.spot.patch, patch) && at - this.spot.at < GOES_ON_MS;
    this.spot = patch.length === 1 ? { patch, at } : null;
    if (goesOn && last?.kind === "set" && this.queue.isUnsent(last.key) && sameSpot(last.patch, patch)) {
      this.queue.items = [...this.queue.items.slice(0, -1), { ...last, patch }];
      this.history.did(last.label, last.key, at, true);
      this.run();
    } else this.put({ kind: "set", label: label ?? named(patch), patch }, goesOn);
  };

  /** Ask for an edit that only Lumso can decide. Answers with what was done of itself; null where it was refused. */
  decide = (label: string, edit: Edit): Promise<Taken[] | null> => {
    const answered = this.queue.answer(edit.seed);
    this.spot = null;
    this.put({ kind: "edit", label, edit });
    return answered;
  };

  /** Which zone is looked at: only its amounts come with the working behind them. */
  lookAt = (zone: string): void => {
    if (this.wanted.look(zone) && this.base) this.replan();
  };

  undo = (): void => {
    if (this.history.undo()) this.moved();
    else this.step("undo");
  };

  redo = (): void => {
    if (this.history.redo(this.outside.now())) this.moved();
    else this.step("redo");
  };

  private moved(): void {
    this.spot = null;
    this.run();
  }

  /** Let go of a refused edit. */
  dismiss = (refusal: Refusal): void => {
    this.refused = this.refused.filter((r) => r !== refusal);
    this.keepHere();
    this.emit();
  };

  /** Ask for a refused edit again, as it was entered. */
  tryAgain = (refusal: Refusal): void => {
    this.refused = this.refused.filter((r) => r !== refusal);
    const { key, ...entered } = refusal.entered;
    this.put(entered);
  };

  /** Changed elsewhere: go on with what was done here, made to that version; it stays one undo away. */
  keepMine = (): void => {
    void this.theirs((theirs) => {
      const { whole } = this;
      this.take(theirs);
      if (whole) this.whole = { ...whole, revision: theirs.revision, key: this.outside.newKey() };
    });
  };

  /** Changed elsewhere: go on with the other version, and let this one go. */
  takeTheirs = (): void => {
    void this.theirs((theirs) => {
      this.take(theirs);
      this.queue.items = [];
      this.whole = null;
    });
  };

  /** Go on from what the job is elsewhere; where nobody answers, the question stays. */
  private async theirs(goOn: (theirs: JobReply) => void): Promise<void> {
    try {
      const theirs = await this.outside.load(this.wanted.zone);
      this.history.clear();
      goOn(theirs);
      this.run();
    } catch (error) {
      this.says = (error as Error).message;
      this.emit();
    }
  }

  /** Send what waits, now. */
  flush = (): void => void this.ask();

  /** Ask anew for what the job comes to, and for what others did. */
  replan = (): void => {
    this.wanted.anything = true;
    void this.ask();
  };

  /** The job was saved elsewhere as a revision. */
  heard = (revision: number): void => {
    this.wanted.heard(revision);
    if (revision && revision !== this.revision && !this.asking) this.replan();
  };

  private isClean(): boolean {
    return this.queue.items.length === 0 && this.whole === null;
  }

  /** Whether all that was entered is saved, or let go. */
  isDone = (): boolean => this.isClean() && !this.refused.length;

  /** Something is done: it waits under a key of its own, and can be undone. */
  private put(doing: Doing, goesOn = false): void {
    if (!this.base) return;
    const key = this.queue.push({ ...doing, key: this.outside.newKey() });
    this.history.did(doing.label, key, this.outside.now(), goesOn);
    this.run();
  }

  private run(): void {
    if (!this.isClean() && (this.state === "saved" || this.state === "refused")) this.state = "saving";
    void this.ask(); // on its way before anything else is done
    this.keepHere();
    this.emit();
  }

  /** One trip: all that waits goes up, in order; what it came to comes down. */
  private async ask(): Promise<void> {
    if (!this.base || this.asking || this.state === "changed elsewhere") return;
    if (this.isClean() && !this.wanted.anything) {
      this.settle();
      return;
    }
    this.stopTimer?.();
    const mine = new AbortController();
    this.asking = mine;
    try {
      if (this.whole) {
        // What an earlier version of this page kept: saved as it was, and gone on from.
        const { job, revision, plan, plan_id } = await this.outside.save(this.whole);
        Object.assign(this, { whole: null, base: job, revision, plan, planId: plan_id });
      }
      const asking = this.trip();
      this.keepHere(); // with its key, before it is on its way
      const got = await this.outside.change(asking, mine.signal);
      if (mine !== this.asking) return;
      this.came(got, asking);
    } catch (error) {
      if (mine !== this.asking) return;
      this.asking = null;
      this.stopped(error as Error);
      return;
    }
    this.asking = null;
    this.wanted.came(this.revision);
    this.run();
  }

  /** What goes up: what was sent and not answered as it was, or all that waits. */
  private trip(): Asking {
    const { items } = this.queue;
    this.queue.sent ??= items.length ? this.sending(items.length) : null;
    const { key, count, read, goesOn } = this.queue.sent ?? this.sending(0);
    this.wanted.begun();
    const queue = items.slice(0, count).filter((q) => q.kind !== "back");
    return { read, goesOn, key, queue, zone: this.wanted.zone, holds: this.planId };
  }

  private sending(count: number): Sent {
    const [first] = this.queue.items;
    const mine = this.typedAt === this.revision; // what others did between is a step of its own
    const goesOn = mine && count === 1 && first !== undefined && this.history.goesOn(first.key);
    return { key: count ? this.outside.newKey() : "", count, read: this.revision, goesOn };
  }

  /** What a trip came to: the job as it is now, the plan of it, and an answer for each change. */
  private came(got: JobChanged, asking: Asking): void {
    this.base = broughtBy(got, this.base as Job, (answer, before, after) => {
      const entered = asking.queue.find((q) => q.key === answer.key);
      if (answer.refused && entered) this.refuse(entered, answer.refused.detail);
      else {
        this.queue.confirmed(answer.key, before, after);
        this.queue.answered(entered, answer.taken);
      }
    });
    this.queue.settled();
    this.revision = got.revision;
    if (asking.queue.length) this.typedAt = got.came.length ? 0 : got.revision;
    this.server = { undo: got.can_undo, redo: got.can_redo, gap: got.gap };
    this.plan = planOf(got, this.plan);
    this.planId = got.plan_id;
    this.says = got.trouble;
    this.state = this.isClean() ? "saved" : "saving";
  }

  private refuse(entered: Queued, says: string): void {
    if (!this.queue.goesBack(entered.key))
      this.refused = [...this.refused, { label: entered.label, says, entered }];
    this.queue.answered(entered, null);
  }

  /** A trip came to nothing: nobody answered, it was overtaken, or what was sent cannot be used. */
  private stopped(error: Error): void {
    this.says = error.message;
    if (error instanceof Unanswered) {
      if (!this.isClean()) this.state = "waiting";
      this.wanted.anything = true;
      this.stopTimer = this.outside.later(TRY_AGAIN_MS, () => void this.ask());
    } else {
      const alone = this.queue.sent?.count === 1;
      this.queue.unsent();
      const [first] = this.queue.items;
      if (error instanceof Unfit && first) {
        this.oneByOne(first, alone, error.message);
        return;
      }
      this.state = error instanceof Overtaken ? "changed elsewhere" : "refused";
    }
    this.keepHere();
    this.emit();
  }

  /** One of those that were sent cannot even be read: one by one, so that it is found and the rest goes on. */
  private oneByOne(first: Queued, alone: boolean, says: string): void {
    this.says = "";
    if (alone) {
      this.queue.items = this.queue.items.slice(1);
      this.refuse(first, says);
    } else this.queue.sent = this.sending(1);
    this.run();
  }

  /** Nothing to save: say so, where nothing else is to be said. */
  private settle(): void {
    if (this.state === "saved") return;
    Object.assign(this, { state: "saved", says: "" });
    this.keepHere();
    this.emit();
  }

  private step(way: StepWay): void {
    if (!this.server[way] || !this.isClean() || this.asking) return;
    this.steps.go(way, this.revision).then(
      (got) => {
        this.take(got);
        this.emit();
      },
      (error: Error) => {
        this.says = error.message;
        if (error instanceof Overtaken) this.state = "changed elsewhere";
        this.emit();
      },
    );
  }

  private take(got: JobReply): void {
    this.asking?.abort();
    Object.assign(this, { base: got.job, revision: got.revision, plan: got.plan, planId: got.plan_id });
    Object.assign(this, { asking: null, spot: null, state: "saved", says: "" });
    this.wanted.loaded(got.job.zones[0]?.id ?? "");
    this.queue.unsent();
    this.server = { undo: got.can_undo, redo: got.can_redo, gap: got.gap };
  }

  private keepHere(): void {
    if (!this.base) return;
    const { revision, base, refused, whole } = this;
    const { items: queue, sent } = this.queue;
    const kept: Kept = { version: 4, revision, base, queue, sent, refused, whole };
    void this.outside.keep(this.isDone() ? null : kept).then((lasts) => {
      if (lasts === this.kept) return;
      this.kept = lasts;
      this.emit();
    });
  }

  private emit(): void {
    const job = this.queue.shownOn(this.base);
    this.view = job && this.plan ? this.look(job, this.plan) : null;
    for (const listener of this.listeners) listener();
  }

  private look(job: Job, plan: Plan): Shown {
    const clean = this.isClean();
    const { past, future } = this.history;
    return {
      job,
      plan,
      saveState: this.state,
      kept: this.kept,
      says: this.says,
      waiting: this.queue.items.filter((q) => q.kind === "edit").map((q) => q.label),
      refused: this.refused,
      stale: this.queue.items.length > 0,
      undo: past.at(-1)?.label ?? (clean && this.server.undo ? "" : null),
      gap: past.length ? 0 : this.server.gap,
      redo: future.at(-1)?.label ?? (clean && this.server.redo ? "" : null),
    };
  }
}
