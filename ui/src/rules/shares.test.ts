import { describe, expect, it } from "vitest";
import { withOneMore } from "./shares";

const whole = (shares: number[]) => Math.round(shares.reduce((sum, s) => sum + s, 0) * 1e6) / 1e6;

describe("shares of a surface", () => {
  it("cover all of it, however many colours there are", () => {
    let shares = withOneMore([1]);
    for (let n = 2; n <= 9; n += 1) {
      expect(whole(shares), `${n} colours`).toBe(1);
      expect(Math.max(...shares) - Math.min(...shares)).toBeLessThan(0.0101);
      shares = withOneMore(shares);
    }
  });

  it("stay as somebody chose them where there is room, and keep their proportion where there is none", () => {
    expect(withOneMore([0.6, 0.15])).toEqual([0.6, 0.15, 0.25]);
    const full = withOneMore([0.8, 0.2]);
    expect(whole(full)).toBe(1);
    expect((full[0] ?? 0) / (full[1] ?? 1)).toBeCloseTo(4, 1);
  });
});
