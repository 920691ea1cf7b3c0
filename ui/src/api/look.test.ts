import { describe, expect, it } from "vitest";
import type { PieceGeometry } from "./client";
import { stageAddress, tileFor } from "./look";

const face = (zone: string, width: number, height: number) => ({
  name: "front",
  surface: "front",
  zone,
  outline: [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
  ],
});
const drawing = (...faces: ReturnType<typeof face>[]) => ({ faces }) as unknown as PieceGeometry;
const TILES = [450, 900, 1800];

describe("the tile a drawing is filled with", () => {
  it("is as wide as the widest face that is painted, so that nothing repeats on it", () => {
    expect(tileFor(drawing(face("z", 300, 440)), TILES)).toBe(450);
    expect(tileFor(drawing(face("z", 300, 460)), TILES)).toBe(900);
    expect(tileFor(drawing(face("z", 300, 300), face("", 3000, 3000)), TILES)).toBe(450);
  });

  it("is the widest there is on what is wider, and there without a drawing", () => {
    expect(tileFor(drawing(face("z", 6000, 2400)), TILES)).toBe(1800);
    expect(tileFor(null, TILES)).toBe(450);
  });
});

describe("where the picture of a step is", () => {
  it("names job, zone, layer and how far the hand went, whatever their names hold", () => {
    const stage = { layer: "l&1", coats: 2, sandings: 0, hand: "too far" as const, wet: false };
    const address = new URL(stageAddress("j", "z 1", stage, 160), "http://lumso");
    expect(address.pathname).toBe("/api/look/jobs/j/z%201/l%261");
    expect(address.searchParams.get("hand")).toBe("too far");
    expect(address.searchParams.get("coats")).toBe("2");
  });
});
