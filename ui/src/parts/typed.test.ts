import { expect, test } from "vitest";
import { readingsOf, readWithin } from "./typed";
import cases from "./typed.json";

/** The core reads the same table. */
test.each(cases as [string, number[]][])("%s can be %j", (typed, meant) => {
  expect(readingsOf(typed)).toEqual(meant);
});

test("below zero", () => {
  expect(readingsOf("-3")).toEqual([-3]);
  expect(readingsOf("−0,5")).toEqual([-0.5]);
});

test("bounds tell which of two is meant, where only one lies within them", () => {
  expect(readWithin("1,250", 0, 100)).toEqual([1.25]);
  expect(readWithin("1,250", 100, 5000)).toEqual([1250]);
  expect(readWithin("1,250", 0, 5000)).toEqual([1250, 1.25]);
});
