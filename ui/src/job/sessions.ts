import type { QueryClient } from "@tanstack/react-query";
import type { Place } from "../keep/keeping";
import type { Draft } from "../keep/store";
import { Unanswered } from "./outer";
import { keptOf, outsideOf } from "./outside";
import { Queue } from "./queue";
import { JobSession } from "./session";

/** A job that is not saved, or not wholly: what was kept of it where it is not open. */
export interface Unsaved {
  id: string;
  name: string;
  /** Null where another page of this browser sees to it. */
  session: JobSession | null;
  draft: Draft | null;
}

interface Held {
  session: JobSession;
  shown: number;
  draft: Draft | null;
  /** Held although nothing shows it, until this is over. */
  lingers: number;
  stop: () => void;
}

const TRY_AGAIN_MS = 2000;
/** How long a job is still held when a view lets go of it: the next view of it may be about to show. */
const LINGERS_MS = 1000;

/**
 * The jobs that are worked on by this page: those on the screen, those that were left before all was saved, and those
 * that were left unsaved by a page that is no more. Each goes on until all of it is saved, or refused and listed.
 */
export class Sessions {
  private held = new Map<string, Held>();
  private listeners = new Set<() => void>();
  private view: Unsaved[] = [];
  /** What other pages of this browser keep, and see to. */
  private others: Draft[] = [];

  constructor(
    private readonly client: QueryClient,
    private readonly keeping: Place,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Those that are not done. */
  unsaved = () => this.view;

  /** The session of a job, opened where it is not. */
  of(id: string, draft: Draft | null = null): JobSession {
    const held = this.held.get(id);
    if (held) return held.session;
    const session = new JobSession(outsideOf(id, this.client, this.keeping));
    this.hold(id, session, draft);
    void session.open();
    return session;
  }

  /** The session of a job, as it was drawn, is on the screen until what comes back is called. */
  show(id: string, session: JobSession): () => void {
    // It may have been let go of between being drawn and now.
    const held = this.held.get(id) ?? this.hold(id, session, null);
    held.shown += 1;
    return () => {
      held.shown -= 1;
      session.flush();
      this.linger(id, held);
    };
  }

  private hold(id: string, session: JobSession, draft: Draft | null): Held {
    const stop = session.subscribe(() => this.look(id));
    const held = { session, shown: 0, draft, lingers: 0, stop };
    this.held.set(id, held);
    this.linger(id, held);
    return held;
  }

  private linger(id: string, held: Held): void {
    window.clearTimeout(held.lingers);
    held.lingers = window.setTimeout(() => {
      held.lingers = 0;
      this.look(id);
    }, LINGERS_MS);
    this.look(id);
  }

  /** Go on with what pages that are no more left unsaved. */
  async pickUp(): Promise<void> {
    const alive = await this.keeping.pages.alive();
    const drafts = await this.keeping.store.drafts().catch(() => []);
    for (const draft of drafts) if (!alive.has(draft.page)) this.of(draft.job, draft);
    this.others = drafts.filter((d) => alive.has(d.page) && d.page !== this.keeping.page);
    this.tell();
  }

  /** Let go of what was kept of a job that cannot be opened. */
  async letGo({ id, draft }: Unsaved): Promise<void> {
    if (draft) await this.keeping.store.dropDraft(id, draft.page);
    this.forget(id);
    this.tell();
  }

  private forget(id: string): void {
    const held = this.held.get(id);
    window.clearTimeout(held?.lingers);
    held?.stop();
    this.held.delete(id);
  }

  private look(id: string): void {
    const held = this.held.get(id);
    if (held?.session.failed instanceof Unanswered && held.draft)
      window.setTimeout(() => void held.session.open(), TRY_AGAIN_MS);
    if (held && !held.shown && !held.lingers && isDone(held)) this.forget(id);
    this.tell();
  }

  private tell(): void {
    const elsewhere = this.others.map((draft) => {
      return { id: draft.job, name: nameOf(draft), session: null, draft };
    });
    const mine = [...this.held]
      .filter(([, held]) => !isDone(held))
      .map(([id, { session, draft }]) => ({
        id,
        session,
        draft,
        name: session.shown()?.job.name ?? (draft ? nameOf(draft) : ""),
      }));
    this.view = [...mine, ...elsewhere];
    for (const listener of this.listeners) listener();
  }
}

/** What a job is called with what was kept of it. */
function nameOf(draft: Draft): string {
  const { base, queue } = keptOf(draft.kept);
  const kept = new Queue();
  kept.items = queue;
  return kept.shownOn(base)?.name ?? base.name;
}

/** Whether nothing of it is left to do: one that was left unsaved has to be opened before that can be said. */
function isDone({ session, draft }: Held): boolean {
  if (session.shown()) return session.isDone();
  return draft === null;
}
