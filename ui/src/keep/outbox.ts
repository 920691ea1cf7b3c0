import { NoAnswer } from "../api/client";
import {
  added,
  again,
  type Change,
  type Edit,
  lastOf,
  letGo,
  refused,
  sending,
  settled,
  takenOver,
} from "./edits";
import { Passing, type Store } from "./store";

/** A refusal of the server that is about the document, with the revision that counts there, where it says one. */
export class NotTaken extends Error {
  constructor(
    says: string,
    readonly head: number | null,
    readonly cause: unknown,
  ) {
    super(says);
  }
}

/** What the outbox asks of the world. */
export interface World {
  /** Send an edit; the revision it is saved as. Throws NoAnswer, or NotTaken. */
  send(edit: Edit): Promise<number>;
  /** The pages that are there. */
  alive(): Promise<ReadonlySet<string>>;
  /** Something was saved: what shows it is to be asked for again. */
  saved(doc: string): void;
  /** Other pages of this browser are to look again. */
  tell(): void;
  now(): number;
  later(ms: number, run: () => void): () => void;
  newKey(): string;
}

/** What became of an edit: saved, or kept until the server answers. */
export type Outcome = "saved" | "kept";

const TRY_AGAIN_MS = 2000;

/** What is sent one after the other: each document by itself, but all that was done in the order it was done. */
const lineOf = (doc: string): string => (doc.startsWith("event/") ? "event/" : doc);

/**
 * Every edit of a document of the workshop goes through here: kept in the browser, sent in order for each document (what was done, in order altogether), and
 * gone from here only when the server has it, or somebody let it go.
 */
export class Outbox {
  edits: Edit[] = [];
  /** Whether the browser keeps what is put here. */
  lasting = true;
  /** What was saved from here, until it is seen to be there. */
  readonly saved = new Map<string, { body: unknown; revision: number }>();
  private held: Edit[] = [];
  private changing: ((edits: Edit[]) => Edit[])[] = [];
  private known = new Map<string, number>();
  private busy = new Set<string>();
  private pauses = new Map<string, () => void>();
  private waiting = new Map<string, { done: (outcome: Outcome) => void; failed: (error: unknown) => void }>();
  private listeners = new Set<() => void>();
  private stopTimer: (() => void) | null = null;

  constructor(
    private store: Store,
    private readonly world: World,
    readonly page: string,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  all = (): Edit[] => this.edits;

  /** The server was seen to have a document at a revision: what was saved from here need not be shown in its place. */
  seen = (doc: string, revision: number): void => {
    if ((this.saved.get(doc)?.revision ?? Number.POSITIVE_INFINITY) <= revision) this.saved.delete(doc);
  };

  /** Look at what is kept, whoever put it there, and send what nobody else sends. */
  look = async (): Promise<void> => {
    const alive = await this.world.alive();
    const waiting = await this.store.waiting().catch(() => []);
    // Looked at often, and written only where something changes.
    if (waiting.some((e) => !alive.has(e.page)))
      await this.change((edits) => takenOver(edits, this.page, alive), false);
    else if (!this.changing.length) {
      this.hold(waiting);
      this.show();
    }
    for (const line of new Set(this.edits.map((e) => lineOf(e.doc)))) void this.send(line);
  };

  /**
   * Keep an edit at once, and send it when nothing newer came for a while. Comes to "kept" as soon as no answer came,
   * or something newer took its place; fails where it is refused.
   */
  put = async (change: Omit<Change, "key" | "page" | "at">, afterMs = 0): Promise<Outcome> => {
    const key = this.world.newKey();
    const read = Math.max(change.read, this.known.get(change.doc) ?? 0);
    const outcome = new Promise<Outcome>((done, failed) => this.waiting.set(key, { done, failed }));
    const whole = { ...change, read, key, page: this.page, at: this.world.now() };
    let before: Edit | undefined;
    await this.change((edits) => {
      before = lastOf(edits, whole);
      return added(edits, whole);
    });
    if (before && !this.edits.some((e) => e.key === before?.key)) this.done(before.key, "kept");
    this.pauses.get(change.doc)?.();
    if (afterMs)
      this.pauses.set(
        change.doc,
        this.world.later(afterMs, () => void this.goOn(change.doc)),
      );
    else void this.goOn(change.doc);
    return outcome;
  };

  /** The page is being left: what was not sent yet is, while there is time. Sent twice under its key it is made once. */
  hurry = (): void => {
    for (const doc of [...this.pauses.keys()]) {
      const first = this.edits.find((e) => e.doc === doc && e.page === this.page);
      if (first && !first.tried && first.says === null) void this.world.send(first).catch(() => undefined);
    }
  };

  private goOn(doc: string): Promise<void> {
    this.pauses.get(doc)?.();
    this.pauses.delete(doc);
    return this.send(doc);
  }

  /** Send a refused edit again, over what was changed elsewhere. */
  again = async (edit: Edit): Promise<void> => {
    const key = this.world.newKey();
    await this.change((edits) => again(edits, edit.key, key));
    void this.send(edit.doc);
  };

  letGo = async (edit: Edit): Promise<void> => {
    await this.change((edits) => letGo(edits, edit.key));
    this.world.saved(edit.doc);
    void this.send(edit.doc);
  };

  /** Change the edits: to be seen at once, and kept before anything else is done. */
  private async change(run: (edits: Edit[]) => Edit[], tell = true): Promise<void> {
    this.changing.push(run);
    this.show();
    try {
      this.hold(await this.store.change(run));
    } catch {
      // The browser keeps nothing more: as long as this page is there, all goes on, and says so.
      const held = this.held;
      this.store = new Passing();
      this.lasting = false;
      this.held = await this.store.change(() => run(held));
    }
    this.changing = this.changing.filter((r) => r !== run);
    if (tell) this.world.tell();
    this.show();
  }

  /**
   * What is kept now, whoever kept it. What was done on another page of this browser and is no longer kept was sent
   * from there: here too it counts until it is seen to be there, or it would seem not to be done for a moment.
   */
  private hold(edits: Edit[]): void {
    const kept = new Set(edits.map((e) => e.doc));
    for (const { doc, page, says, body } of this.held)
      if (doc.startsWith("event/") && page !== this.page && says === null && !kept.has(doc))
        this.saved.set(doc, { body, revision: 1 });
    this.held = edits;
  }

  private show(): void {
    this.edits = this.changing.reduce((edits, run) => run(edits), this.held);
    for (const listener of this.listeners) listener();
  }

  private done(key: string, outcome: Outcome): void {
    this.waiting.get(key)?.done(outcome);
    this.waiting.delete(key);
  }

  private async send(doc: string): Promise<void> {
    const line = lineOf(doc);
    if (this.busy.has(line)) return;
    this.busy.add(line);
    try {
      while (await this.sendFirst(line));
    } finally {
      this.busy.delete(line);
    }
  }

  /** Send the first edit of a line; whether there is more to send. */
  private async sendFirst(line: string): Promise<boolean> {
    const first = this.edits.find(
      (e) => lineOf(e.doc) === line && e.page === this.page && e.says === null && e.read !== null,
    );
    if (!first || (this.pauses.has(first.doc) && !first.tried)) return false;
    const { doc } = first;
    await this.change((edits) => sending(edits, first.key));
    const mine = this.edits.find((e) => e.key === first.key);
    if (!mine) return true; // another took its place meanwhile
    try {
      const revision = await this.world.send(mine);
      this.known.set(doc, revision);
      if (mine.method === "PUT") this.saved.set(doc, { body: mine.body, revision });
      else this.saved.delete(doc);
      await this.change((edits) => settled(edits, mine.key, revision));
      this.done(mine.key, "saved");
      this.world.saved(doc);
      return true;
    } catch (error) {
      if (!(error instanceof NotTaken)) {
        this.done(mine.key, "kept");
        this.tryAgain();
        if (!(error instanceof NoAnswer)) throw error;
        return false;
      }
      await this.change((edits) => refused(edits, mine.key, error.message, error.head));
      this.waiting.get(mine.key)?.failed(error.cause);
      this.waiting.delete(mine.key);
      return true;
    }
  }

  private tryAgain(): void {
    this.stopTimer?.();
    this.stopTimer = this.world.later(TRY_AGAIN_MS, () => void this.look());
  }
}
