import { describe, expect, it } from "vitest";
import amounts from "../../../tests/amounts.json";
import durations from "../../../tests/durations.json";
import written from "../../../tests/money.json";
import { amount, clock, lasts, minorOf, money, priceFault } from "./say";

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

describe("prices as they are typed", () => {
  it.each([
    ["12.50", 2, 1250],
    ["12,5", 2, 1250],
    ["12", 2, 1200],
    ["0.05", 2, 5],
    [" 3 EUR ", 2, 300],
    ["1250", 0, 1250],
    ["1.25", 3, 1250],
  ])("%s with %d decimals", (typed, exponent, minor) => {
    expect(minorOf(typed, exponent)).toBe(minor);
  });

  it.each([
    ["12.505", 2],
    ["1.5", 0],
    ["-3", 2],
    ["three", 2],
    ["2.5.5", 2],
    ["", 2],
  ])("%s is none with %d decimals", (typed, exponent) => {
    expect(minorOf(typed, exponent)).toBeNull();
  });

  it("are read as they are written", () => {
    for (const exponent of [0, 2, 3])
      for (const minor of [0, 5, 99, 100, 123_456_789])
        expect(minorOf(money(minor, exponent, "EUR"), exponent)).toBe(minor);
  });

  it("say what they may be", () => {
    expect(priceFault(" x ", 2)).toEqual({
      says: "x is no price.",
      allowed: "a number with at most 2 decimals, such as 12.50",
    });
    expect(priceFault("1.5", 0).allowed).toBe("a whole number, such as 12");
    expect(priceFault("x", 3).allowed).toContain("12.500");
  });
});
