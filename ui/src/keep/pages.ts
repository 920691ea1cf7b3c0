import type { Store } from "./store";

/** How long after it was last heard of a page counts as gone, where the browser has no locks to ask. */
export const GONE_AFTER_MS = 90_000;
const BEAT_MS = 5_000;
const LOCK = "lumso page ";

/**
 * Which pages of this browser are there. A browser that has locks is asked for them: a page holds one as long as it
 * lives. One that has none, as over plain http from another machine, is told by each page now and then.
 */
export class Pages {
  private beating = 0;

  constructor(
    private readonly store: Store,
    readonly page: string,
  ) {}

  /** Be there, until the page is left. */
  here(): void {
    if (navigator.locks) {
      void navigator.locks.request(LOCK + this.page, () => new Promise(() => undefined));
      return;
    }
    const beat = () => void this.store.beat(this.page, Date.now()).catch(() => undefined);
    beat();
    this.beating = window.setInterval(beat, BEAT_MS);
    window.addEventListener("pageshow", beat);
    window.addEventListener("pagehide", () => void this.store.beat(this.page, null).catch(() => undefined));
  }

  /** Be there no more. */
  gone = async (): Promise<void> => {
    window.clearInterval(this.beating);
    if (!navigator.locks) await this.store.beat(this.page, null).catch(() => undefined);
  };

  alive = async (): Promise<ReadonlySet<string>> => {
    if (navigator.locks) {
      const { held = [] } = await navigator.locks.query();
      return new Set([this.page, ...held.map((lock) => lock.name?.slice(LOCK.length) ?? "")]);
    }
    const since = Date.now() - GONE_AFTER_MS;
    const beats = await this.store.beats().catch(() => new Map<string, number>());
    return new Set([this.page, ...[...beats].filter(([, at]) => at > since).map(([page]) => page)]);
  };
}
