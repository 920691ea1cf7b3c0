import type { Cost } from "../api/client";

export type CostLine = Cost["lines"][number];

/** What a line of the cost is for. */
export const KINDS: Record<CostLine["kind"], string> = {
  materials: "mixed and put on",
  waste: "washed out and wiped off",
  things: "used up",
  wear: "worn",
  hours: "hands on",
  "the piece": "bought",
  overhead: "rent, light, the van",
  tax: "on top",
};

/** What the materials of a cost are counted by. */
export const BASES: Record<Cost["basis"], string> = {
  planned: "as planned: an estimate",
  "poured so far": "by what was poured so far, the rest as planned: an estimate",
  poured: "by what was poured",
};
