import { useSettings } from "../api/workshop";
import { say } from "./say";

/** The international foot of 1959, squared: exact. */
const FT2_M2 = 0.09290304;
const IN_FEET = new Set(["us", "imperial"]);

export interface Area {
  value: string;
  unit: string;
}

/** An area as a workshop of these measures says it: square feet in US and imperial ones, square metres elsewhere. */
export const areaOf = (m2: number, measures: string): Area =>
  IN_FEET.has(measures) ? { value: say(m2 / FT2_M2), unit: "ft²" } : { value: say(m2), unit: "m²" };

/** How areas are said in this workshop: in a word, or number and unit apart. */
export function useArea(): { area: (m2: number) => string; parts: (m2: number) => Area } {
  const measures = useSettings().data?.measures ?? "metric";
  const parts = (m2: number) => areaOf(m2, measures);
  return { parts, area: (m2) => `${parts(m2).value} ${parts(m2).unit}` };
}
