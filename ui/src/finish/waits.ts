import { say } from "../parts/say";

/** Hours as people say them. */
export function hours(h: number | null): string {
  if (h === null) return "unknown: read the label";
  if (h < 1) return `${Math.round(h * 60)} min`;
  if (h < 48) return `${say(Math.round(h * 10) / 10)} h`;
  return h < 24 * 14 ? `${say(Math.round((h / 24) * 10) / 10)} days` : `${Math.round(h / 168)} weeks`;
}

export const WAITS = [
  { slug: "", name: "as soon as it may follow" },
  { slug: "12", name: "overnight" },
  { slug: "24", name: "a day" },
  { slug: "48", name: "two days" },
  { slug: "72", name: "three days" },
  { slug: "168", name: "a week" },
  { slug: "672", name: "four weeks" },
];
