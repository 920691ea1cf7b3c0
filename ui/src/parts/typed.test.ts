import { expect, test } from "vitest";
import { readingsOf, readWithin } from "./typed";

test.each([
  ["750", [750]],
  ["0,75", [0.75]],
  [",5", [0.5]],
  [".5", [0.5]],
  ["1 250", [1250]],
  ["1’250", [1250]],
  ["1\u202f250,5", [1250.5]],
  ["1.234,5", [1234.5]],
  ["1,234.5", [1234.5]],
  ["1,250,000", [1250000]],
  ["0,125", [0.125]],
  ["1,250", [1250, 1.25]],
  ["12.500", [12500, 12.5]],
  ["-3", [-3]],
  ["−0,5", [-0.5]],
  ["1.2.3", []],
  ["1.250.5", []],
  ["1e3", []],
  ["7 7", []],
  ["", []],
  ["wide", []],
])("%s can be %j", (typed, meant) => {
  expect(readingsOf(typed)).toEqual(meant);
});

test("bounds tell which of two is meant, where only one lies within them", () => {
  expect(readWithin("1,250", 0, 100)).toEqual([1.25]);
  expect(readWithin("1,250", 100, 5000)).toEqual([1250]);
  expect(readWithin("1,250", 0, 5000)).toEqual([1250, 1.25]);
});
