import { ASKED, type ByScale, type ScaleNow } from "./client";

/** What the server tells as it happens. */
export interface Told {
  /** Whether it is heard. */
  heard: boolean;
  /** How far the server’s clock is ahead of this device’s, in minutes. */
  ahead: number;
  scale: (ScaleNow & { pots: Record<string, ByScale> }) | null;
}

const TRY_AGAIN_MS = 1500;
/** The server says something at least so often. */
const QUIET_MS = 25_000;

/** What a change left: the workshop at a version, the job at a revision. */
export interface Changed {
  workshop: number;
  revision: number;
}

/** Listens to what changes on a job. Knows no framework; `changed` is called when something was noted or edited, or
 * may have been while nothing was heard. */
export class Live {
  told: Told = { heard: false, ahead: 0, scale: null };
  private source: EventSource | null = null;
  private timer = 0;
  private last = "";
  private at: Changed = { workshop: 0, revision: 0 };
  private heardAt = 0;
  private listeners = new Set<() => void>();

  constructor(
    private readonly job: string,
    private readonly changed: (now: Changed) => void,
    private readonly scale = true,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  now = (): Told => this.told;

  /** The server’s minute, as far as this device knows it. */
  minute = (): number => Date.now() / 60_000 + this.told.ahead;

  start = (): void => {
    this.stop();
    const source = new EventSource(
      `/api/bench/live?job=${encodeURIComponent(this.job)}${this.scale ? "" : "&scale=false"}`,
    );
    this.source = source;
    const take = (name: string, run: (data: Record<string, unknown>) => void) =>
      source.addEventListener(name, (event) => {
        const data = JSON.parse((event as MessageEvent<string>).data) as Record<string, unknown>;
        this.heardAt = Date.now();
        const ahead = (data.now_min as number) - Date.now() / 60_000;
        // A late answer makes the server look behind: the one that was on its way the shortest is believed.
        const drifted = Math.abs(ahead - this.told.ahead) > 0.02 || !this.told.heard;
        if (drifted) this.say({ heard: true, ahead });
        run(data);
      });
    take("beat", () => undefined);
    take("out", () => {
      this.stop();
      window.dispatchEvent(new Event(ASKED));
    });
    take("scale", (data) => this.say({ scale: data as unknown as Told["scale"] }));
    take("changed", (data) => {
      const now = `${data.workshop}.${data.touched}`;
      this.at = { workshop: data.workshop as number, revision: data.revision as number };
      if (now !== this.last && (this.last || !this.scale)) this.changed(this.at);
      this.last = now;
    });
    source.onerror = () => this.lost();
    this.timer = window.setInterval(() => {
      if (this.told.heard && Date.now() - this.heardAt > QUIET_MS) this.lost();
    }, 5000);
  };

  stop = (): void => {
    this.source?.close();
    this.source = null;
    window.clearInterval(this.timer);
  };

  private lost(): void {
    this.say({ heard: false, scale: null });
    this.stop();
    this.timer = window.setInterval(() => {
      window.clearInterval(this.timer);
      this.start();
      this.changed(this.at); // whatever was missed meanwhile
    }, TRY_AGAIN_MS);
  }

  private say(more: Partial<Told>): void {
    this.told = { ...this.told, ...more };
    for (const listener of this.listeners) listener();
  }
}
