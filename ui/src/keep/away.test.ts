import { QueryClient } from "@tanstack/react-query";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

const copy = (at: string) => new Response("{}", { headers: { "X-Lumso-Kept": at } });

describe("copies of what the server said", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("window", { setTimeout, clearTimeout, addEventListener: () => undefined });
    vi.resetModules();
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("say since when the oldest of them is", async () => {
    vi.stubGlobal("fetch", async () => {
      throw new Error("away");
    });
    const away = await import("./away");
    const told: (string | null)[] = [];
    away.subscribe(() => told.push(away.now()));
    away.heard(new Response("{}"));
    away.heard(copy("2026-11-24T12:00:00Z"));
    away.heard(copy("2026-11-24T18:00:00Z"));
    away.heard(copy("2026-11-23T09:00:00Z"));
    expect(told).toEqual(["2026-11-24T12:00:00Z", "2026-11-23T09:00:00Z"]);
  });

  it("are forgotten, and all is asked again, once the server answers", async () => {
    let up = false;
    vi.stubGlobal("fetch", async () => {
      if (!up) throw new Error("away");
      return new Response("{}");
    });
    const away = await import("./away");
    const client = new QueryClient();
    const again = vi.spyOn(client, "invalidateQueries");
    vi.stubGlobal("navigator", {});
    away.keepLumso(client);
    const told: (string | null)[] = [];
    away.subscribe(() => told.push(away.now()));
    away.heard(copy("2026-11-24T12:00:00Z"));
    await vi.advanceTimersByTimeAsync(20_000);
    expect(again).not.toHaveBeenCalled();
    up = true;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(told.at(-1)).toBeNull();
    expect(again).toHaveBeenCalledOnce();
  });
});
