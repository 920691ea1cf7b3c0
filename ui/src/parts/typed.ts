const THREES = /^(-?[1-9]\d{0,2})((?<mark>[ '.,])\d{3}(?:\k<mark>\d{3})*)([.,]\d+)?$/;
const PLAIN = /^-?(\d+([.,]\d+)?|[.,]\d+)$/;

/**
 * What a number that is typed can be: none where it is no number, one where it is plain, two where `1,250` is a
 * thousand to some and one and a quarter to others. As the server reads lengths and amounts.
 */
export function readingsOf(typed: string): number[] {
  const text = typed
    .trim()
    .replace(/[\u00a0\u2009\u202f]/g, " ")
    .replace(/’/g, "'")
    .replace("−", "-");
  const threes = THREES.exec(text);
  if (threes) {
    const [, first = "", rest = "", mark = "", part = ""] = threes;
    const digits = rest.replace(/\D/g, "");
    if (part.startsWith(mark)) return [];
    const whole = Number(`${first}${digits}${part.replace(",", ".")}`);
    const either = (mark === "." || mark === ",") && digits.length === 3 && !part;
    return either ? [whole, Number(`${first}.${digits}`)] : [whole];
  }
  return PLAIN.test(text) ? [Number(text.replace(",", "."))] : [];
}

/** The readings of what is typed that lie within bounds: where there is one alone, that is what is meant. */
export function readWithin(typed: string, min: number, max: number): number[] {
  return readingsOf(typed).filter((n) => n >= min && n <= max);
}
