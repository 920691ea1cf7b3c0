import type { BuyingLine, Lot } from "../api/client";
import { amount, dayOf, say } from "../parts/say";

type Unit = Lot["unit"];

/** An amount as it is bought. */
export function much(value: number, unit: Unit): string {
  if (unit === "ml" || unit === "g") {
    const said = amount(value, unit);
    return `${said.value} ${said.unit}`;
  }
  return unit === "m" ? `${say(value)} m` : `${say(value)}`;
}

/** What a lot is one of: an item in a colour, as lines of the list are. */
export const keyOf = (lot: Lot): string => `${lot.item}|${(lot.colour || lot.hex).toLowerCase()}`;

/** Whether a lot was bought on the day a list was made, or the day before: what was only counted anew was not. */
export const boughtLately = (lot: Lot, made_min: number): boolean =>
  lot.bought_on >= dayOf(new Date((made_min - 24 * 60) * 60_000));

/** A line as it is bought: a lot for each size of pack. */
export function lotsOf(line: BuyingLine, currency: string, withTax: boolean, slug: () => string): Lot[] {
  const now = new Date();
  const packs = line.packs.length
    ? line.packs
    : [{ count: 1, size: line.buys, unit: line.unit, each_minor: null, says: "", at: "" }];
  return packs.map((pack) => ({
    slug: slug(),
    item: line.item,
    name: line.name,
    unit: pack.unit,
    size: pack.size,
    left: pack.size * pack.count,
    counted_min: Math.floor(now.getTime() / 60_000),
    count: pack.count,
    colour: line.colour,
    hex: line.hex,
    paid_minor: pack.each_minor === null ? null : pack.each_minor * pack.count,
    currency,
    with_tax: withTax,
    bought_on: dayOf(now),
    keeps_until: "",
    at: pack.at,
  }));
}
