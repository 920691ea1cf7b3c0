import type { Amount, Catalogue, Recipe } from "../api/client";
import { parts, percent, say } from "../parts/say";

/** The families in the order the work goes; a family nobody has heard of comes last. */
const FAMILIES = [
  "Your own",
  "Washes",
  "Glazes",
  "Paints",
  "Milk paints",
  "Textured paints",
  "Home-made paints",
  "Grit paints",
  "Waxes",
];

export const inOrder = (families: string[]): string[] =>
  [...families].sort((a, b) => (FAMILIES.indexOf(a) + 1 || 99) - (FAMILIES.indexOf(b) + 1 || 99));

/** Minutes as people say them. */
export function minutes(min: number): string {
  if (min < 60) return `${say(min)} min`;
  if (min < 48 * 60) return `${say(min / 60)} h`;
  return `${say(min / 60 / 24)} days`;
}

/** How long a mix can be used, in words; an unknown life sends to the label. */
export function life(recipe: Recipe): string {
  const working = recipe.working_life_min;
  const starts = recipe.life_starts === "when wetted" ? " from wetting" : "";
  return working ? `use within ${minutes(working)}${starts}` : "working life: read the label";
}

/** How long a mix keeps once closed. */
export function keeps(recipe: Recipe): string {
  const days = recipe.keeping_life_days;
  if (days === null || days === undefined) return "keeping: read the label";
  return days === 0 ? "does not keep" : `keeps ${days === 1 ? "a day" : `${say(days)} days`}, closed`;
}

/** An amount as the recipe states it. */
export function stated(amount: Amount): string {
  switch (amount.by) {
    case "volume-parts":
      return `${parts(amount.parts)} ${amount.parts <= 1 ? "part" : "parts"} by volume`;
    case "weight-parts":
      return `${parts(amount.parts)} ${amount.parts <= 1 ? "part" : "parts"} by weight`;
    case "volume-share":
      return `${percent(amount.share)} of the whole`;
    case "weight-share":
      return `${percent(amount.share)} of the weight`;
    case "dose":
      return `${say(amount.ml)} ml for ${say(amount.per_ml)} ml of ${amount.of}`;
  }
}

/** Whether a recipe is one's own; one that was copied here and is not saved yet is so by its name. */
export const isOwn = (catalogue: Catalogue, slug: string) =>
  slug in catalogue.own_recipes || slug.startsWith("own-");
