interface Point {
  x: number;
  y: number;
}

/** Points as a closed path. */
export const path = (points: readonly Point[]) => `M${points.map((p) => `${p.x} ${p.y}`).join("L")}Z`;

/** An outline and what is cut out of it as one path, to be filled even-odd. */
export const withHoles = (outline: readonly Point[], holes: readonly (readonly Point[])[] = []) =>
  [outline, ...holes].map(path).join("");
