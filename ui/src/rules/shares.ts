/** Whole per cents that are as alike as can be and make a hundred. */
const alike = (n: number): number[] =>
  Array.from({ length: n }, (_, i) => Math.floor(100 / n) + (i < 100 % n ? 1 : 0));

/**
 * Shares of a surface with one more colour, as parts of one. Alike ones stay alike. What somebody chose stays as it is
 * and the new one takes what is left; where nothing is left, all make room for it alike.
 */
export function withOneMore(shares: number[]): number[] {
  const n = shares.length + 1;
  const left = 1 - shares.reduce((sum, s) => sum + s, 0);
  const chosen = shares.length > 0 && Math.max(...shares) - Math.min(...shares) > 0.0101;
  if (!chosen) return alike(n).map((share) => share / 100);
  if (left >= 0.0099) return [...shares, Math.round(left * 1000) / 1000];
  const room = shares.map((s) => Math.round(((s * (n - 1)) / n / (1 - left)) * 1000) / 1000);
  return [...room, Math.round((1 - room.reduce((sum, s) => sum + s, 0)) * 1000) / 1000];
}
