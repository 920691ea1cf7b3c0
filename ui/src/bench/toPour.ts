import type { Addition, ByScale, PotNow } from "../api/client";
import type { ToPour } from "./Pouring";

/** What is to be poured now: an addition that was chosen, else the next of the plan; null where all is in. */
export function toPour(pot: PotNow, adding: Addition | null): ToPour | null {
  const { plan } = pot;
  const source = (component: string): string =>
    pot.batch?.mix.parts.find((p) => p.component === component)?.mass.steps.at(-1)?.source ?? "";
  if (adding) {
    const held = pot.pot.held.find(
      (h) => h.stuff.material === adding.stuff.material && h.stuff.colour === adding.stuff.colour,
    );
    const poured = held?.g ?? 0;
    return {
      stuff: adding.stuff,
      poured,
      mark: poured + adding.g,
      left: adding.g,
      near: adding.near_g,
      rescue: true,
      fillings: [],
      said: "",
      source: source(adding.stuff.component),
    };
  }
  if (!plan || plan.next < 0 || pot.pot.state !== "pouring") return null;
  const line = plan.lines[plan.next];
  if (!line) return null;
  const filled = line.as_measured
    ? pot.measured?.options[0]?.parts.find((p) => p.component === line.stuff.component)
    : undefined;
  const spoken = pot.left_said[plan.next];
  return {
    stuff: line.stuff,
    poured: line.poured_g,
    mark: line.mark_g,
    left: line.left_g,
    near: line.near_g,
    rescue: false,
    fillings: (filled?.fillings ?? []).map((f) => `${f.count} × ${f.name}`),
    said: spoken?.words ?? "",
    source: source(line.stuff.component),
  };
}

/** How far a pour is from its mark by the scale, in g: below 0 is too far; null where the scale does not tell. */
export const toMark = (todo: ToPour, held: number, byScale: ByScale | null): number | null =>
  byScale?.g == null ? null : todo.mark - todo.poured - (byScale.g - held);

/** The last look at a pot; undefined where something was poured since. */
export function lookedAt(pot: PotNow): PotNow["pot"]["looks"][number] | undefined {
  const last = pot.pot.looks.at(-1);
  return last && last.at_min >= (pot.pot.pours.at(-1)?.at_min ?? 0) ? last : undefined;
}
