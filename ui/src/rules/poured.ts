import type { PotNow } from "../api/client";

type PourPlan = NonNullable<PotNow["plan"]>;
type Line = PourPlan["lines"][number];

/** A line is at its mark this close to it, as a share; and over it by more than that and a crumb. As the core has it:
 * both are held to `tests/pours.json`. */
const MARK = 0.01;
const CRUMB_G = 1e-6;

/** What is still to be poured after more was, as long as nobody answers: a pour too far makes the others larger, so
 * that the shares hold. Whether jar and shelf allow it, the server says when it is back. */
export function poured(
  plan: Pick<PourPlan, "lines" | "times">,
  more: (stuff: Line["stuff"]) => number,
  settled: boolean,
): Pick<PourPlan, "lines" | "times"> {
  const held = plan.lines.map((line) => line.poured_g + more(line.stuff));
  const step = (line: Line) => Math.max(line.near_g - MARK * line.mark_g, 0);
  const isOver = (line: Line, g: number, mark: number) => g > mark * (1 + MARK) + step(line) + CRUMB_G;
  const grown = plan.lines.map((line, i) => {
    const g = held[i] ?? 0;
    return isOver(line, g, line.planned_g) ? g / line.planned_g : 1;
  });
  // Where the painter said how large it becomes, it does not grow.
  const times = settled ? plan.times : Math.max(plan.times, ...grown);
  const lines = plan.lines.map((line, i) => {
    const g = held[i] ?? 0;
    const mark_g = times * line.planned_g;
    const near_g = MARK * mark_g + step(line);
    const state = isOver(line, g, mark_g) ? "over" : g >= mark_g - near_g ? "at the mark" : "to pour";
    if (g === line.poured_g && times === plan.times) return line;
    const left_g = state === "to pour" ? mark_g - g : 0;
    const left_ml = left_g / line.stuff.bulk_density;
    return { ...line, poured_g: g, mark_g, near_g, left_g, left_ml, state, as_measured: false } as Line;
  });
  return { lines, times };
}
