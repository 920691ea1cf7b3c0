import { describe, expect, test } from "vitest";
import pours from "../../../tests/pours.json";
import { withUnsent } from "../api/bench";
import type { Noted, PotNow, Timer } from "../api/client";
import { poured as pouredSince } from "../rules/poured";
import { countdown, standing } from "./Timers";

const timer = (more: Partial<Timer>): Timer =>
  ({ kind: "wait", opens_min: 100, closes_min: null, ...more }) as Timer;

describe("a timer", () => {
  test("a wait runs, then is over", () => {
    expect(standing(timer({}), 90)).toEqual({ ends: 100, phase: "runs" });
    expect(standing(timer({}), 100)).toEqual({ ends: null, phase: "over" });
  });

  test("a window runs, is open, and closes", () => {
    const window = timer({ kind: "window", closes_min: 115 });
    expect(standing(window, 99)).toEqual({ ends: 100, phase: "runs" });
    expect(standing(window, 100)).toEqual({ ends: 115, phase: "open" });
    expect(standing(window, 115)).toEqual({ ends: null, phase: "over" });
  });

  test("a life is open from the start and ends", () => {
    const life = timer({ kind: "life", closes_min: 240 });
    expect(standing(life, 50)).toEqual({ ends: 240, phase: "open" });
    expect(standing(life, 241).phase).toBe("over");
  });

  test("what only a label knows never comes to an end", () => {
    expect(standing(timer({ opens_min: null }), 1e9)).toEqual({ ends: null, phase: "runs" });
  });

  test("what is left is said in hours, minutes and seconds, and in days beyond two", () => {
    expect([0, 0.5, 61, 59.999].map(countdown)).toEqual(["00:00", "00:30", "1:01:00", "1:00:00"]);
    expect(countdown(-3)).toBe("00:00");
    expect(countdown(60 * 24 * 3)).toBe("3 days");
  });
});

const stuff = { component: "paint", colour: "green", material: "matt-paint", bulk_density: 1.35 };
const pot = {
  pot: { pot: "p1", state: "pouring", pours: [{ event: "seen" }], held: [], settled: null },
  plan: {
    next: 0,
    times: 1,
    lines: [
      {
        stuff,
        planned_g: 20,
        poured_g: 5,
        mark_g: 20,
        left_g: 15,
        left_ml: 11.1,
        near_g: 0.2,
        state: "to pour",
      },
      {
        stuff: { ...stuff, component: "water", colour: "", bulk_density: 1 },
        planned_g: 60,
        poured_g: 0,
        mark_g: 60,
        left_g: 60,
        left_ml: 60,
        near_g: 0.6,
        state: "to pour",
      },
    ],
  },
} as unknown as PotNow;

const poured = (id: string, g: number, of = "p1") => ({
  id,
  noted: { act: { act: "poured", pot: of, stuff, g, by: "scale" } } as unknown as Noted,
});

describe("what the server has not seen yet", () => {
  test("is counted in once, and only in its own pot", () => {
    const shown = withUnsent(pot, [poured("seen", 5), poured("a", 6), poured("b", 3, "p2")]);
    expect(shown.plan?.lines[0]).toMatchObject({ poured_g: 11, left_g: 9, state: "to pour" });
    expect(shown.plan?.next).toBe(0);
    expect(withUnsent(pot, [poured("seen", 5)])).toBe(pot);
  });

  test("brings a part to its mark, and the next to be poured", () => {
    const shown = withUnsent(pot, [poured("a", 14.9)]);
    expect(shown.plan?.lines[0]).toMatchObject({ left_g: 0, state: "at the mark" });
    expect(shown.plan?.next).toBe(1);
  });

  test("makes the others larger where a pour went too far, as the server will say", () => {
    const shown = withUnsent(pot, [poured("a", 60)]);
    expect(shown.plan?.lines.map((l) => [l.state, Math.round(l.left_g)])).toEqual([
      ["at the mark", 0],
      ["to pour", 195],
    ]);
  });

  test.each(pours.map((c, i) => [i, c] as const))("is what the core says, case %i", (_, c) => {
    const since = new Map<string, number>();
    for (const { component, g } of c.since) since.set(component, (since.get(component) ?? 0) + g);
    const plan = c.plan as unknown as Parameters<typeof pouredSince>[0];
    const made = pouredSince(plan, (stuff) => since.get(stuff.component) ?? 0, c.settled);
    expect(made.times).toBeCloseTo(c.after.times, 6);
    expect(made.lines.findIndex((l) => l.state === "to pour")).toBe(c.after.next);
    for (const [i, line] of c.after.lines.entries()) {
      expect(made.lines[i]?.state).toBe(line.state);
      for (const key of ["poured_g", "mark_g", "left_g", "left_ml"] as const)
        expect(made.lines[i]?.[key], key).toBeCloseTo(line[key], 6);
    }
  });

  test("a pot that was stirred here is stirred", () => {
    const stirred = { id: "s", noted: { act: { act: "stirred", pot: "p1" } } as unknown as Noted };
    expect(withUnsent(pot, [stirred]).pot.state).toBe("stirred");
  });
});
