import { expect, test } from "vitest";
import { found } from "./finding";

const MIXES = [
  { slug: "clear", name: "Clear coat", says: "a closed, even film" },
  { slug: "wash", name: "Whitewash, dry-wiped", group: "wash" },
  { slug: "milk", name: "Milk paint" },
  { slug: "limed", name: "Liming wax" },
  { slug: "wall", name: "Wash on raw wood" },
];
const WORDS = [
  { word: "varnish", means: ["clear coat"] },
  { word: "chippy", means: ["milk paint"] },
];
const slugs = (typed: string, recent: string[] = []) => found(MIXES, typed, WORDS, recent).map((o) => o.slug);

test("a name is found by its beginning, by words in any order, and written apart or together", () => {
  expect(slugs("white wash")).toEqual(["wash"]);
  expect(slugs("raw wash")).toEqual(["wall"]);
  expect(slugs("cle")).toEqual(["clear"]);
});

test("a name that begins so comes before one that only holds it", () => {
  expect(slugs("wash")).toEqual(["wall", "wash"]);
});

test("a word that stands for something finds that, after what is called so", () => {
  expect(slugs("varnish")).toEqual(["clear"]);
  expect(found([...MIXES, { slug: "v", name: "Varnish" }], "varnish", WORDS).map((o) => o.slug)).toEqual([
    "v",
    "clear",
  ]);
  expect(slugs("ch")).toEqual([]);
});

test("looks are searched last, accents and case do not matter, nothing is found for nonsense", () => {
  expect(slugs("éven")).toEqual(["clear"]);
  expect(slugs("zzz")).toEqual([]);
});

test("with nothing typed all are there, the last used first, the others in their order", () => {
  expect(slugs("")).toEqual(["clear", "wash", "milk", "limed", "wall"]);
  expect(slugs(" ", ["limed", "milk"])).toEqual(["limed", "milk", "clear", "wash", "wall"]);
});
