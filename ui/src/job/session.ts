import type { Edit, Job, JobReply, Plan, Taken } from "../api/client";
import { shownWith } from "./edits";
import {
  type Kept,
  type Outside,
  Overtaken,
  type Queued,
  type Refusal,
  type SaveState,
  type Sent,
  type Shown,
  Unanswered,
} from "./outer";
import { diff, named, type Patch, patched, sameSpot } from "./patch";

interface Moment {
  label: string;
  base: Job;
  queue: Queued[];
  patch: Patch | null;
  at: number;
}

const SAVE_AFTER_MS = 400;
const TRY_AGAIN_MS = 2000;
const GOES_ON_MS = 1000;

/**
 * A job that is being worked on, whatever shows it. Edits are shown at once, in order; those that only Lumso can decide
 * are completed when it answers, and later ones are made to what they came to. Plans are asked for the newest job only;
 * what is done saves itself with the revision it was made from. Undo and redo need no server.
 */
export class JobSession {
  private base: Job | null = null;
  private saved: Job | null = null;
  private revision = 0;
  private server = { undo: false, redo: false, gap: 0 };
  private queue: Queued[] = [];
  private past: Moment[] = [];
  private future: Moment[] = [];
  private refused: Refusal[] = [];
  private plan: Plan | null = null;
  private planned: Job | null = null;
  private state: SaveState = "saved";
  private says = "";
  private zone = "";
  private asking = false;
  private saving = false;
  private epoch = 0;
  private sent: Sent | null = null;
  private stepping: { way: "undo" | "redo"; revision: number; key: string } | null = null;
  private kept = true;
  private planning: AbortController | null = null;
  private stopTimer: (() => void) | null = null;
  private listeners = new Set<() => void>();
  private answers = new Map<string, (taken: Taken[] | null) => void>();
  private view: Shown | null = null;
  failed: Error | null = null;

  constructor(private readonly outside: Outside) {}

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
      const got = await this.outside.load();
      const left = await this.outside.kept();
      this.take(got, left !== null);
      if (!left) return this.emit();
      // What is not saved is there before anybody is told: nobody is to think it done.
      const { revision, base, queue, sent, refused } = left;
      Object.assign(this, { revision, base, queue, sent, refused });
      this.run();
    } catch (error) {
      this.failed = error as Error;
      this.emit();
    }
  }

  /** Set plain values: shown, planned and kept at once. */
  edit = (change: (job: Job) => Job, label?: string): void => {
    const before = this.jobShown();
    if (!before) return;
    const patch = diff(before, change(before));
    if (!patch.length) return;
    this.remember(label ?? named(patch), patch);
    this.queue.push({ kind: "set", label: label ?? named(patch), patch });
    this.run();
  };

  /** Ask for an edit that only Lumso can decide. Answers with what was done of itself; null where it was refused. */
  decide = (label: string, edit: Edit): Promise<Taken[] | null> => {
    this.remember(label, null);
    this.queue.push({ kind: "edit", label, edit });
    const answered = new Promise<Taken[] | null>((resolve) => this.answers.set(edit.seed, resolve));
    this.run();
    return answered;
  };

  /** Which zone is looked at: only its amounts come with the working behind them. */
  lookAt = (zone: string): void => {
    const before = this.zone;
    this.zone = zone;
    if (before && before !== zone) this.replan();
  };

  undo = (): void => {
    const moment = this.past.pop();
    if (moment) this.go(moment, this.future);
    else if (this.server.undo && this.isClean()) void this.step("undo");
  };

  redo = (): void => {
    const moment = this.future.pop();
    if (moment) this.go(moment, this.past);
    else if (this.server.redo && this.isClean()) void this.step("redo");
  };

  /** Let go of a refused edit. */
  dismiss = (refusal: Refusal): void => {
    this.refused = this.refused.filter((r) => r !== refusal);
    this.keepHere();
    this.emit();
  };

  /** Ask for a refused edit again, as it was entered. */
  tryAgain = (refusal: Refusal): void => {
    this.refused = this.refused.filter((r) => r !== refusal);
    this.remember(refusal.label, null);
    this.queue.push(refusal.entered);
    this.run();
  };

  /** Changed elsewhere: go on with this version; the other stays one undo away. */
  keepMine = (): void => {
    void this.theirs((theirs) => {
      this.revision = theirs.revision;
      void this.save();
    });
  };

  /** Changed elsewhere: go on with the other version, and let this one go. */
  takeTheirs = (): void => {
    void this.theirs((theirs) => {
      this.queue = [];
      this.take(theirs, false);
      this.keepHere();
      this.emit();
    });
  };

  /** Go on from what the job is elsewhere; where nobody answers, the question stays. */
  private async theirs(goOn: (theirs: JobReply) => void): Promise<void> {
    try {
      const theirs = await this.outside.load();
      Object.assign(this, { sent: null, past: [], future: [] });
      goOn(theirs);
    } catch (error) {
      this.says = (error as Error).message;
      this.emit();
    }
  }

  /** Save what is not saved yet, now. */
  flush = (): void => void this.save();

  replan = (): void => {
    const job = this.base;
    if (!job || this.queue.length) return;
    this.planning?.abort();
    const mine = new AbortController();
    this.planning = mine;
    this.outside.plan(job, this.zone, mine.signal).then(
      (plan) => {
        if (mine !== this.planning) return;
        Object.assign(this, { plan, planned: job, says: this.state === "waiting" ? this.says : "" });
        this.emit();
      },
      (error: Error) => {
        if (mine !== this.planning || mine.signal.aborted) return;
        this.says = error.message;
        this.emit();
      },
    );
  };

  private jobShown(): Job | null {
    return this.queue.reduce<Job | null>(
      (job, q) => job && (q.kind === "set" ? patched(job, q.patch) : shownWith(job, q.edit)),
      this.base,
    );
  }

  private isClean(): boolean {
    return this.base === this.saved && this.queue.length === 0 && this.sent === null;
  }

  /** Whether all that was entered is saved, or let go. */
  isDone = (): boolean => this.isClean() && !this.refused.length;

  private remember(label: string, patch: Patch | null): void {
    if (!this.base) return;
    const last = this.past.at(-1);
    const at = this.outside.now();
    const goesOn = patch && last?.patch && sameSpot(last.patch, patch) && at - last.at < GOES_ON_MS;
    if (goesOn) last.at = at;
    else this.past.push({ label, base: this.base, queue: [...this.queue], patch, at });
    this.future = [];
  }

  private go(moment: Moment, back: Moment[]): void {
    if (!this.base) return;
    back.push({ ...moment, base: this.base, queue: [...this.queue], patch: null });
    this.epoch += 1;
    this.asking = false;
    this.base = moment.base;
    this.queue = [...moment.queue];
    this.run();
  }

  /** Make what is plain, ask for what is not, one after the other. */
  private run(): void {
    for (let head = this.queue[0]; head?.kind === "set" && this.base; head = this.queue[0]) {
      this.base = patched(this.base, head.patch);
      this.queue.shift();
    }
    if (this.state === "saved") this.state = "saving";
    if (this.queue.length) void this.ask();
    else this.replan(); // on its way before anything else is done
    this.keepHere();
    this.emit();
    if (!this.queue.length) this.in(SAVE_AFTER_MS, () => void this.save());
  }

  private async ask(): Promise<void> {
    const head = this.queue[0];
    if (this.asking || head?.kind !== "edit" || !this.base) return;
    this.asking = true;
    const epoch = this.epoch;
    try {
      const made = await this.outside.edit(this.base, head.edit);
      if (epoch !== this.epoch) return;
      this.base = made.job;
      this.queue.shift();
      this.answered(head.edit.seed, made.taken);
      if (this.state === "waiting") this.state = "saving";
    } catch (error) {
      if (epoch !== this.epoch) return;
      if (error instanceof Unanswered) {
        Object.assign(this, { asking: false, state: "waiting", says: error.message });
        this.emit();
        this.in(TRY_AGAIN_MS, () => void this.ask());
        return;
      }
      this.queue.shift();
      this.refused = [...this.refused, { label: head.label, says: (error as Error).message, entered: head }];
      this.answered(head.edit.seed, null);
    }
    this.asking = false;
    this.run();
  }

  private answered(seed: string, taken: Taken[] | null): void {
    this.answers.get(seed)?.(taken);
    this.answers.delete(seed);
  }

  private async save(): Promise<void> {
    this.stopTimer?.();
    const job = this.base;
    if (!job || this.saving || this.isClean() || (this.queue.length && !this.sent)) return this.settle();
    this.saving = true;
    this.state = "saving";
    this.emit();
    try {
      this.sent ??= { job, revision: this.revision, key: this.outside.newKey() };
      const { sent } = this;
      this.keepHere(); // with its key, before it is on its way
      const got = await this.outside.save(sent);
      this.sent = null;
      this.revision = got.revision;
      this.server = { undo: got.can_undo, redo: got.can_redo, gap: 0 };
      this.saved = sent.job;
      if (this.base === sent.job) {
        this.base = { ...job, entries: got.entries };
        if (this.planned === job) this.planned = this.base;
        this.saved = this.base;
      }
      this.says = "";
      this.state = "saved";
    } catch (error) {
      this.says = (error as Error).message;
      if (!(error instanceof Unanswered)) this.sent = null;
      this.state =
        error instanceof Unanswered
          ? "waiting"
          : error instanceof Overtaken
            ? "changed elsewhere"
            : "refused";
      if (this.state === "waiting") this.in(TRY_AGAIN_MS, () => void this.save());
      return;
    } finally {
      this.saving = false;
      this.keepHere();
      this.emit();
    }
    if (!this.isClean() && !this.queue.length) await this.save();
  }

  /** Nothing to save: say so, where nothing else is to be said. */
  private settle(): void {
    if (this.saving || !this.isClean() || this.state === "saved" || this.state === "changed elsewhere")
      return;
    Object.assign(this, { state: "saved", says: "" });
    this.keepHere();
    this.emit();
  }

  private async step(way: "undo" | "redo"): Promise<void> {
    // Pressed again because no answer came, it is the same step.
    const { stepping, revision } = this;
    const goesOn = stepping?.way === way && stepping.revision === revision;
    const key = goesOn ? stepping.key : this.outside.newKey();
    this.stepping = { way, revision, key };
    try {
      this.take(await this.outside.step(way, revision, key), false);
      this.stepping = null;
      this.emit();
    } catch (error) {
      this.says = (error as Error).message;
      if (error instanceof Overtaken) this.state = "changed elsewhere";
      this.emit();
    }
  }

  private take(got: JobReply, dirty: boolean): void {
    this.epoch += 1;
    this.asking = false;
    this.planning?.abort();
    Object.assign(this, { base: got.job, saved: got.job, revision: got.revision, plan: got.plan });
    Object.assign(this, { planned: got.job, state: dirty ? "saving" : "saved", says: "" });
    this.server = { undo: got.can_undo, redo: got.can_redo, gap: got.gap };
  }

  private keepHere(): void {
    if (!this.base) return;
    const { revision, base, queue, sent, refused } = this;
    const nothing = this.isClean() && !refused.length;
    const kept: Kept | null = nothing ? null : { version: 3, revision, base, queue, sent, refused };
    void this.outside.keep(kept).then((lasts) => {
      if (lasts === this.kept) return;
      this.kept = lasts;
      this.emit();
    });
  }

  private in(ms: number, run: () => void): void {
    this.stopTimer?.();
    this.stopTimer = this.outside.later(ms, run);
  }

  private emit(): void {
    const job = this.jobShown();
    this.view = job && this.plan ? this.look(job, this.plan) : null;
    for (const listener of this.listeners) listener();
  }

  private look(job: Job, plan: Plan): Shown {
    const clean = this.isClean();
    return {
      job,
      plan,
      saveState: this.state,
      kept: this.kept,
      says: this.says,
      waiting: this.queue.filter((q) => q.kind === "edit").map((q) => q.label),
      refused: this.refused,
      stale: this.planned !== job,
      undo: this.past.at(-1)?.label ?? (clean && this.server.undo ? "" : null),
      gap: this.past.length ? 0 : this.server.gap,
      redo: this.future.at(-1)?.label ?? (clean && this.server.redo ? "" : null),
    };
  }
}
