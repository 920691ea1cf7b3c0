import { describe, expect, it } from "vitest";
import { templateAt } from "./layouts";

const file = { job: "j1", zone: "z 1", layer: "l&1", face: 2, what: "face" as const };

describe("where a layout at its true size is", () => {
  it("names job, zone, layer and face, whatever their names hold", () => {
    const address = new URL(templateAt("svg", file), "http://lumso");
    expect(address.pathname).toBe("/api/jobs/j1/layout.svg");
    expect(Object.fromEntries(address.searchParams)).toEqual({
      zone: "z 1",
      layer: "l&1",
      face: "2",
      what: "face",
    });
  });

  it("carries what the rules measured, and nothing where they are true", () => {
    const off = new URL(templateAt("pdf", { ...file, across: 97, down: 102.5 }), "http://lumso");
    expect([off.searchParams.get("across_mm"), off.searchParams.get("down_mm")]).toEqual(["97", "102.5"]);
    const stick = templateAt("pdf", { ...file, what: "stick down", across: undefined });
    expect(stick).toContain("what=stick+down");
    expect(stick).not.toContain("_mm");
  });
});
