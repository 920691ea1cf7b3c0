import { expect, test } from "vitest";
import { onScale } from "./onScale";

const reading = {
  boot: "a",
  tare: 1,
  unit: "g",
  steady: true,
  over: false,
  unsettled: false,
  step_g: 0.1,
  most_g: 3000,
};

test.each([
  [12.3, "12.3 g on it"],
  [-400, "taken off: 400 g"],
  [-0.1, "0.0 g on it"],
])("%d g after a tare is said as it is", (g, says) => {
  expect(onScale({ ...reading, g })).toBe(says);
});

test("what is no weight is no number", () => {
  expect(onScale({ ...reading, g: null, over: true })).not.toMatch(/\d/);
  expect(onScale({ ...reading, g: null, unsettled: true })).not.toMatch(/\d/);
});
