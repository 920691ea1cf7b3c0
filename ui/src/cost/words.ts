import type { Cost } from "../api/client";

export type CostLine = Cost["lines"][number];

/** What a line of the cost is for. */
export const KINDS: Record<CostLine["kind"], string> = {
  materials: "mixed and put on",
  things: "used up",
  wear: "worn",
  hours: "hands on",
  "the piece": "bought",
  overhead: "rent, light, the van",
  tax: "on top",
};
