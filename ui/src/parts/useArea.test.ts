import { expect, test } from "vitest";
import { areaOf } from "./useArea";

test("areas are in square feet where lengths are in feet, in square metres elsewhere", () => {
  expect(areaOf(0.56, "metric")).toEqual({ value: "0.56", unit: "m²" });
  expect(areaOf(0.56, "australian")).toEqual({ value: "0.56", unit: "m²" });
  expect(areaOf(0.09290304, "us")).toEqual({ value: "1", unit: "ft²" });
  expect(areaOf(1, "imperial")).toEqual({ value: "10.8", unit: "ft²" });
});
