/** A number as it is said at the bench: enough digits to measure by, no more. */
export function say(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size >= 100) return value.toFixed(0);
  if (size >= 10) return value.toFixed(1).replace(/\.0$/, "");
  if (size >= 0.1) return value.toFixed(2).replace(/\.?0+$/, "");
  return value.toPrecision(2);
}

export const percent = (share: number): string => `${Math.round(share * 1000) / 10} %`;

/** A point in time as people say it, in the reader's own zone. */
export function when(iso: string): string {
  const how = { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;
  return new Date(iso).toLocaleString(undefined, how);
}

/** A day, as people write it. */
export const day = (iso: string): string =>
  new Date(iso).toLocaleDateString(undefined, {
    day: "numeric",
    month: "long",
    year: "numeric",
    timeZone: "UTC",
  });

/** An id for a zone or a layer that has never been used before. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(10));
  return Array.from(bytes, (b) => (b % 36).toString(36)).join("");
}

const VULGAR: Record<string, string> = { "0.25": "¼", "0.33": "⅓", "0.5": "½", "0.67": "⅔", "0.75": "¾" };

/** The day it is here, where this device is: what is bought in the evening is bought today. */
export function dayOf(at: Date = new Date()): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** A count of parts with its fraction as cooks write it: ¾, 1½. */
export function parts(value: number): string {
  const whole = Math.floor(value);
  const mark = VULGAR[String(Math.round((value - whole) * 100) / 100)];
  return mark ? `${whole || ""}${mark}` : say(value);
}

/** Millilitres as they can be measured out: whole from ten, tenths below. */
function measured(ml: number): string {
  if (ml >= 9.95) return ml.toFixed(0);
  return ml >= 0.95 ? ml.toFixed(1) : String(Number(ml.toPrecision(2)));
}

/** An amount in ml or g as it is said: above a thousand in litres and kilograms. */
export function amount(value: number, unit: "ml" | "g"): { value: string; unit: string } {
  if (value < 1000) return { value: unit === "ml" ? measured(value) : say(value), unit };
  const large = value / 1000;
  return {
    value: large >= 100 ? large.toFixed(0) : large.toFixed(large >= 10 ? 1 : 2),
    unit: unit === "ml" ? "l" : "kg",
  };
}

/** Money in minor units as it is written; null is unpriced, never nothing. The server says it alike: tests of both read
 * `tests/money.json`. */
export function money(minor: number | null, exponent: number, currency: string): string {
  if (minor === null) return "unpriced";
  return `${(minor / 10 ** exponent).toFixed(exponent)} ${currency}`.trimEnd();
}

/** A price as it is typed, in minor units: 12.50, 12,5; null for what is none, or has more decimals than there are. */
export function minorOf(typed: string, exponent: number): number | null {
  const said = /^\s*(\d{1,9})(?:[.,](\d+))?\s*(?:[A-Z]{3})?\s*$/.exec(typed);
  const decimals = said?.[2] ?? "";
  if (!said || decimals.length > exponent) return null;
  return Number((said[1] ?? "") + decimals.padEnd(exponent, "0"));
}

/** What a price may be, where what was typed is none. */
export const priceFault = (typed: string, exponent: number) => ({
  says: `${typed.trim()} is no price.`,
  allowed: exponent
    ? `a number with at most ${exponent} decimals, such as 12.${"50".padEnd(exponent, "0").slice(0, exponent)}`
    : "a whole number, such as 12",
});

/** Millilitres in a sentence. */
export function ml(value: number): string {
  const said = amount(value, "ml");
  return `${said.value} ${said.unit}`;
}

/** Minutes as people say them; null is what only a label knows. The one way durations are said. */
export function lasts(minutes: number | null): string {
  if (minutes === null) return "unknown: read the label";
  const whole = Math.round(minutes);
  if (whole === 30) return "half an hour";
  if (minutes < 90) return whole === 60 ? "1 h" : `${Math.max(minutes > 0 ? 1 : 0, whole)} min`;
  const hours = minutes / 60;
  if (hours < 48) return `${parts(Math.round(hours * 4) / 4)} h`;
  const days = hours / 24;
  return days < 14 ? `${parts(Math.round(days * 2) / 2)} days` : `${Math.round(days / 7)} weeks`;
}

/** When, in minutes counted from the beginning of the job. */
export function clock(minutes: number): string {
  if (minutes < -1) return `${lasts(-minutes)} before`;
  if (minutes < 1) return "at once";
  const day = Math.floor(minutes / 1440);
  const rest = minutes - day * 1440;
  return rest < 1
    ? `day ${day + 1}, at the start`
    : `day ${day + 1}, ${day ? "" : "about "}${lasts(rest)} in`;
}

/** A minute since 1970 as a time on the reader’s clock, with its day where that is another. */
export function clockTime(minute: number): string {
  const at = new Date(minute * 60_000);
  const today = new Date().toDateString() === at.toDateString();
  const time = at.toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
  return today
    ? time
    : `${at.toLocaleDateString(undefined, { weekday: "short", day: "numeric", month: "short" })}, ${time}`;
}

/** Grams as a scale shows them: tenths below a hundred. */
export function grams(g: number): string {
  if (g >= 1000) return `${(g / 1000).toFixed(2)} kg`;
  return `${g >= 99.95 ? g.toFixed(0) : g.toFixed(1)} g`;
}
