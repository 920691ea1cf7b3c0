import { describe, expect, it } from "vitest";
import amounts from "../../../tests/amounts.json";
import durations from "../../../tests/durations.json";
import written from "../../../tests/money.json";
import { amount, clock, lasts, money } from "./say";

describe("durations", () => {
  it.each(durations as [number, string][])("%d minutes are said as on paper", (minutes, said) => {
    expect(lasts(minutes)).toBe(said);
  });

  it("leaves to the label what only the label knows", () => {
    expect(lasts(null)).toBe("unknown: read the label");
  });

  it.each([
    [-600, "10 h before"],
    [0, "at once"],
    [45, "day 1, about 45 min in"],
    [1439, "day 1, about 24 h in"],
    [1440, "day 2, at the start"],
    [1440 + 180, "day 2, 3 h in"],
  ])("%d minutes into the job are a time of it", (minutes, said) => {
    expect(clock(minutes)).toBe(said);
  });
});

describe("amounts", () => {
  it.each(amounts as [number, string][])("%d ml are said as on paper", (ml, said) => {
    const { value, unit } = amount(ml, "ml");
    expect(`${value} ${unit}`).toBe(said);
  });
});

describe("money", () => {
  it.each(written as [number | null, number, string, string][])(
    "%s is written as on paper",
    (minor, exponent, currency, said) => {
      expect(money(minor, exponent, currency)).toBe(said);
    },
  );
});
