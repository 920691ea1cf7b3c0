import { QueryClient } from "@tanstack/react-query";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Place } from "../keep/keeping";
import type { Outside } from "./outer";
import { Sessions } from "./sessions";

const load = vi.fn(async () => ({
  job: { id: "rack", name: "Rack", zones: [] },
  revision: 1,
  plan: {},
  plan_id: "",
}));
vi.mock("./outside", () => ({
  outsideOf: () =>
    ({ load, kept: async () => null, keep: async () => true, now: Date.now }) as unknown as Outside,
}));

beforeEach(() => {
  load.mockClear();
  vi.useFakeTimers();
  vi.stubGlobal("window", globalThis);
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const made = () => new Sessions(new QueryClient(), {} as Place);

test("from one view of a job to the next it is the same session, opened once", async () => {
  const sessions = made();
  const first = sessions.of("rack");
  const hidden = sessions.show("rack", first);
  await vi.advanceTimersByTimeAsync(5000);
  expect(first.shown()?.job.name).toBe("Rack");
  const next = sessions.of("rack"); // drawn before the first is hidden
  hidden();
  sessions.show("rack", next);
  await vi.advanceTimersByTimeAsync(5000);
  expect(next).toBe(first);
  expect(sessions.of("rack")).toBe(first);
  expect(load).toHaveBeenCalledTimes(1);
});

test("a job that nothing shows and that is saved is let go of, and opened anew when it is wanted", async () => {
  const sessions = made();
  const first = sessions.of("rack");
  sessions.show("rack", first)();
  await vi.advanceTimersByTimeAsync(5000);
  expect(sessions.of("rack")).not.toBe(first);
});

test("a session that was let go of between being drawn and being shown is held again", async () => {
  const sessions = made();
  const drawn = sessions.of("rack");
  await vi.advanceTimersByTimeAsync(5000);
  const hidden = sessions.show("rack", drawn);
  expect(sessions.of("rack")).toBe(drawn);
  hidden();
  await vi.advanceTimersByTimeAsync(5000);
  expect(sessions.of("rack")).not.toBe(drawn);
});
