import { describe, expect, it } from "vitest";
import type { BuyingLine } from "../api/client";
import { dayOf } from "../parts/say";
import { boughtLately, keyOf, lotsOf, much } from "./words";

const line = (more: Partial<BuyingLine> = {}): BuyingLine => ({
  key: "milk-paint-powder|loft ochre",
  item: "milk-paint-powder",
  name: "milk-paint powder",
  kind: "material",
  colour: "Loft ochre",
  hex: "#b98a3e",
  aisle: "paints and powders",
  unit: "g",
  needed: 200,
  promised: 0,
  least: 0,
  kept_out: 0,
  buys: 200,
  packs: [
    { count: 1, size: 170, unit: "g", each_minor: 1100, says: "1 × 170 g", at: "" },
    { count: 2, size: 35, unit: "g", each_minor: 420, says: "2 × 35 g", at: "the corner shop" },
  ],
  over: 40,
  minor: 1940,
  state: "priced",
  notes: [],
  uses: [],
  ...more,
});

let made = 0;
const slug = () => {
  made += 1;
  return `lot-${made}`;
};

describe("what is ticked in the shop", () => {
  it("is a lot for each size of pack, with what all of it cost and holds", () => {
    const lots = lotsOf(line(), "EUR", true, slug);
    expect(lots.map((l) => [l.size, l.count, l.left, l.paid_minor, l.at])).toEqual([
      [170, 1, 170, 1100, ""],
      [35, 2, 70, 840, "the corner shop"],
    ]);
    expect(new Set(lots.map((l) => l.slug)).size).toBe(2);
    expect(lots.every((l) => l.currency === "EUR" && l.with_tax)).toBe(true);
  });

  it("stands on the line it was bought for, however its colour is written", () => {
    for (const lot of lotsOf(line(), "", true, slug)) expect(keyOf(lot)).toBe(line().key);
  });

  it("without a name for its colour is told by how it is drawn", () => {
    const [lot] = lotsOf(line({ colour: "", hex: "#B98A3E" }), "", true, slug);
    expect(lot && keyOf(lot)).toBe("milk-paint-powder|#b98a3e");
  });

  it("of which no pack is known is one of what is short, unpriced and not free", () => {
    const lots = lotsOf(line({ packs: [], minor: null, state: "no pack known" }), "EUR", false, slug);
    expect(lots.map((l) => [l.size, l.count, l.left, l.paid_minor, l.with_tax])).toEqual([
      [200, 1, 200, null, false],
    ]);
  });

  it("keeps a pack nobody knows the price of unpriced", () => {
    const pack = { count: 3, size: 1, unit: "piece" as const, each_minor: null, says: "3 pieces", at: "" };
    const [lot] = lotsOf(line({ packs: [pack], unit: "piece" }), "EUR", true, slug);
    expect(lot?.paid_minor).toBeNull();
    expect(lot?.left).toBe(3);
  });

  it("was counted when it was ticked, on the day it was bought", () => {
    const before = Math.floor(Date.now() / 60_000);
    const [lot] = lotsOf(line(), "EUR", true, slug);
    expect(lot?.counted_min).toBeGreaterThanOrEqual(before);
    expect(lot?.bought_on).toBe(dayOf());
  });
});

describe("what was bought lately", () => {
  const noon = Date.UTC(2026, 10, 28, 12) / 60_000;
  const [tin] = lotsOf(line(), "EUR", true, slug);
  it.each([
    ["2026-11-28", true],
    ["2026-11-27", true],
    ["2026-11-26", false],
    ["", false],
  ])("bought %s: %s", (bought_on, lately) => {
    // Counted anew today, an old tin was still not bought today.
    expect(tin && boughtLately({ ...tin, bought_on, counted_min: noon }, noon)).toBe(lately);
  });
});

describe("amounts as they are bought", () => {
  it.each([
    [1250, "ml", "1.25 l"],
    [250, "ml", "250 ml"],
    [1000, "g", "1.00 kg"],
    [31, "m", "31 m"],
    [3, "piece", "3"],
  ] as const)("%d %s", (value, unit, said) => {
    expect(much(value, unit)).toBe(said);
  });
});
