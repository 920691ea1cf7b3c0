import type { ScaleNow } from "../api/client";
import { grams } from "../parts/say";

type Reading = NonNullable<ScaleNow["reading"]>;

/** What a scale shows, in words: below nothing after a tare, something was taken off. */
export function onScale({ g, step_g, over, unsettled }: Reading): string {
  if (over) return "more than it can weigh";
  if (unsettled || g === null) return "not at rest: less than nothing";
  return g < -2 * step_g ? `taken off: ${grams(-g)}` : `${grams(Math.max(g, 0))} on it`;
}
