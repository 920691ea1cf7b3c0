import { describe, expect, it } from "vitest";
import table from "../../../tests/patches.json";
import { diff, named, type Patch, patched, sameSpot } from "./patch";

const layer = (id: string, coats = 1) => ({ id, coats, colours: {} as Record<string, string> });
const job = () => ({
  name: "Rack",
  zones: [
    { id: "top", name: "Top", layers: [layer("a"), layer("b"), layer("c")] },
    { id: "edge", name: "Edge", layers: [layer("d")] },
  ],
});
type Job = ReturnType<typeof job>;
const changed = (change: (j: Job) => void): Job => {
  const made = structuredClone(job());
  change(made);
  return made;
};
const layers = (j: Job, zone = 0) => j.zones[zone]?.layers ?? [];

const CASES: [string, (j: Job) => void, string][] = [
  ["a value", (j) => Object.assign(j, { name: "Shelf" }), "a name"],
  ["a value of a layer", (j) => Object.assign(layers(j)[1] ?? {}, { coats: 3 }), "coats"],
  ["a key added", (j) => Object.assign(layers(j)[0]?.colours ?? {}, { paint: "#fff" }), "a colour"],
  ["a layer added", (j) => layers(j).splice(1, 0, layer("new")), "a layer added"],
  ["a layer taken out", (j) => layers(j).splice(0, 1), "a layer taken out"],
  ["a layer moved", (j) => layers(j).push(layers(j).shift() ?? layer("x")), "a layer moved"],
  ["a zone taken out", (j) => j.zones.pop(), "a zone taken out"],
];

describe("a patch", () => {
  it.each(CASES)("makes %s of what was before, and is named", (_, change, name) => {
    const after = changed(change);
    const patch = diff(job(), after);
    expect(patched(job(), patch)).toEqual(after);
    expect(named(patch)).toBe(name);
  });

  it("of nothing is nothing", () => {
    expect(diff(job(), job())).toEqual([]);
    expect(named([])).toBe("");
  });

  it("takes a key out again", () => {
    const with_key = changed((j) => Object.assign(layers(j)[0]?.colours ?? {}, { paint: "#fff" }));
    expect(patched(with_key, diff(with_key, job()))).toEqual(job());
  });

  it("is made to another version by the ids, and keeps what came meanwhile", () => {
    const coats = diff(
      job(),
      changed((j) => Object.assign(layers(j)[1] ?? {}, { coats: 3 })),
    );
    const meanwhile = changed((j) => layers(j).splice(0, 0, layer("primer")));
    expect(layers(patched(meanwhile, coats)).map((x) => [x.id, x.coats])).toEqual([
      ["primer", 1],
      ["a", 1],
      ["b", 3],
      ["c", 1],
    ]);
    const gone = diff(
      job(),
      changed((j) => layers(j).splice(1, 1)),
    );
    const primed = changed((j) => layers(j).splice(2, 0, layer("primer")));
    expect(layers(patched(primed, gone)).map((x) => x.id)).toEqual(["a", "primer", "c"]);
  });

  it("leaves alone what is no longer there", () => {
    const coats = diff(
      job(),
      changed((j) => Object.assign(layers(j)[1] ?? {}, { coats: 3 })),
    );
    const without = changed((j) => layers(j).splice(1, 1));
    expect(patched(without, coats)).toEqual(without);
    expect(patched({ name: "Rack" } as unknown as Job, coats)).toEqual({ name: "Rack" });
  });

  it("knows when typing goes on in one spot", () => {
    const said = (name: string) =>
      diff(
        job(),
        changed((j) => Object.assign(j, { name })),
      );
    expect(sameSpot(said("S"), said("Sh"))).toBe(true);
    const other = diff(
      job(),
      changed((j) => Object.assign(layers(j)[0] ?? {}, { coats: 2 })),
    );
    expect(sameSpot(said("S"), other)).toBe(false);
    const added = diff(
      job(),
      changed((j) => layers(j).push(layer("n"))),
    );
    expect(sameSpot(added, added)).toBe(false);
  });
});

describe("the table that the server is held to as well", () => {
  it.each(table.map((c, i) => [i, c] as const))("reads case %i alike, and names places alike", (_, c) => {
    expect(patched(c.before as unknown, c.patch as Patch)).toEqual(c.after);
    if (!c.numbered) expect(patched(c.before as unknown, diff(c.before, c.after))).toEqual(c.after);
  });
});
