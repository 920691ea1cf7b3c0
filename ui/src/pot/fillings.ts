import type { KitOption } from "../api/client";
import { ml } from "../parts/say";

type Fillings = KitOption["parts"][number]["fillings"];

/** Fillings as they are said: 2 × 1 tbsp + jug to 200 ml. */
export const filled = (fillings: Fillings): string =>
  fillings
    .map((f) => `${f.count > 1 ? `${f.count} × ` : ""}${f.name}${f.to_mark ? ` to ${ml(f.ml)}` : ""}`)
    .join(" + ");

/** All fillings of a way together, measure by measure: 2 × tbsp + 4 × tsp. */
export function tally(o: KitOption): string {
  const counts = new Map<string, Fillings[number]>();
  for (const f of o.parts.flatMap((p) => p.fillings)) {
    const key = `${f.name}/${f.ml}`;
    counts.set(key, { ...f, count: (counts.get(key)?.count ?? 0) + f.count });
  }
  return filled([...counts.values()]);
}
