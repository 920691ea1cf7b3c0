import { describe, expect, it } from "vitest";
import { meaningOf } from "./steady";

describe("what the large key does", () => {
  it("is the same while only the number on it counts up", () => {
    expect(meaningOf("a", "Poured: 15.2 g")).toBe(meaningOf("a", "Poured: 9 g"));
  });
  it("is another for another operation, and for another word", () => {
    expect(meaningOf("a", "Begin")).not.toBe(meaningOf("b", "Begin"));
    expect(meaningOf("a", "Begin")).not.toBe(meaningOf("a", "Done"));
  });
});
