import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { GONE_AFTER_MS, Pages } from "./pages";
import { Passing } from "./store";

/** A browser without locks: plain http from another machine. */
const browser = () => {
  const heard = new Map<string, () => void>();
  vi.stubGlobal("navigator", {});
  vi.stubGlobal("window", {
    setInterval: (run: () => void, ms: number) => setInterval(run, ms),
    addEventListener: (name: string, run: () => void) => void heard.set(name, run),
  });
  return heard;
};

describe("pages of a browser that has no locks", () => {
  beforeEach(() => void vi.useFakeTimers({ now: 1_000_000 }));
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("say every few seconds that they are there", async () => {
    browser();
    const store = new Passing();
    new Pages(store, "one").here();
    expect((await store.beats()).get("one")).toBe(1_000_000);
    await vi.advanceTimersByTimeAsync(20_000);
    expect(Date.now() - ((await store.beats()).get("one") ?? 0)).toBeLessThanOrEqual(5_000);
  });

  it("are gone once nothing was heard of them for long, and not before", async () => {
    browser();
    const store = new Passing();
    await store.beat("other", Date.now());
    const mine = new Pages(store, "one");
    await vi.advanceTimersByTimeAsync(GONE_AFTER_MS - 1);
    expect(await mine.alive()).toEqual(new Set(["one", "other"]));
    await vi.advanceTimersByTimeAsync(2);
    expect(await mine.alive()).toEqual(new Set(["one"]));
  });

  it("say so when they are left, and are back when they are shown again", async () => {
    const heard = browser();
    const store = new Passing();
    new Pages(store, "one").here();
    heard.get("pagehide")?.();
    expect((await store.beats()).has("one")).toBe(false);
    heard.get("pageshow")?.();
    expect((await store.beats()).has("one")).toBe(true);
  });
});

describe("pages of a browser that has locks", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("hold one as long as they live, and ask for those of others", async () => {
    const held: { name: string }[] = [{ name: "lumso page other" }];
    const request = vi.fn((name: string) => void held.push({ name }));
    vi.stubGlobal("navigator", { locks: { request, query: async () => ({ held }) } });
    const pages = new Pages(new Passing(), "one");
    expect(await pages.alive()).toEqual(new Set(["one", "other"]));
    pages.here();
    expect(held.map((l) => l.name)).toContain("lumso page one");
  });
});
