import { expect, test } from "vitest";
import { cut } from "./words";

const term = (name: string, ...forms: string[]) => ({ slug: name, name, says: `${name}.`, forms });
const TERMS = [term("Glaze", "glaze", "glazes"), term("Wet edge", "wet edge"), term("Edge", "edge")];
const read = (text: string) =>
  cut(text, TERMS).map((part) => (typeof part === "string" ? part : `<${part.term.name}: ${part.word}>`));

test("the first of each word can be opened, in the case it is written", () => {
  expect(read("Glaze on; a second glaze later.")).toEqual(["<Glaze: Glaze>", " on; a second glaze later."]);
});

test("a longer word goes before one in it, and a part of another word is none", () => {
  expect(read("Keep a wet edge.")).toEqual(["Keep a ", "<Wet edge: wet edge>", "."]);
  expect(read("Unglazed; edges of hedges.")).toEqual(["Unglazed; edges of hedges."]);
});

test("text without a word of the trade stays whole, and nothing of it is lost", () => {
  expect(read("Dust off last.")).toEqual(["Dust off last."]);
  const text = "An edge, then glaze at the edge.";
  expect(
    cut(text, TERMS)
      .map((p) => (typeof p === "string" ? p : p.word))
      .join(""),
  ).toBe(text);
});
