import type { QueryClient } from "@tanstack/react-query";
import type { Keeping } from "../keep/keeping";
import { outsideOf } from "./outside";
import { JobSession } from "./session";

/**
 * The jobs that are worked on by this page: those on the screen, those that were left before all was saved, and those
 * that were left unsaved by a page that is no more. Each goes on until all of it is saved, or refused and listed.
 */
export class Sessions {
  private held = new Map<string, { session: JobSession; shown: number; stop: () => void }>();
  private listeners = new Set<() => void>();
  private view: { id: string; session: JobSession }[] = [];

  constructor(
    private readonly client: QueryClient,
    private readonly keeping: Keeping,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Those that are not done. */
  unsaved = () => this.view;

  /** The session of a job, opened where it is not. */
  of(id: string): JobSession {
    const held = this.held.get(id);
    if (held) return held.session;
    const session = new JobSession(outsideOf(id, this.client, this.keeping));
    const stop = session.subscribe(() => this.look(id));
    this.held.set(id, { session, shown: 0, stop });
    void session.open();
    return session;
  }

  /** The job is on the screen, until what comes back is called. */
  show(id: string): () => void {
    const session = this.of(id);
    const held = this.held.get(id);
    if (held) held.shown += 1;
    return () => {
      if (held) held.shown -= 1;
      session.flush();
      this.look(id);
    };
  }

  /** Go on with what pages that are no more left unsaved. */
  async pickUp(): Promise<void> {
    const alive = await this.keeping.pages.alive();
    const drafts = await this.keeping.store.drafts().catch(() => []);
    for (const draft of drafts) if (!alive.has(draft.page)) this.of(draft.job);
  }

  private look(id: string): void {
    const held = this.held.get(id);
    if (held && !held.shown && held.session.isOpen() && held.session.isDone()) {
      held.stop();
      this.held.delete(id);
    }
    const left = [...this.held].filter(([, h]) => h.session.isOpen() && !h.session.isDone());
    this.view = left.map(([job, h]) => ({ id: job, session: h.session }));
    for (const listener of this.listeners) listener();
  }
}
