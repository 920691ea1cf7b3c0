import type { Batch } from "../api/client";

/** Hours as people say them. */
export function lives(h: number): string {
  if (h < 1.5) return `${Math.max(1, Math.round(h * 60))} min`;
  return h < 48 ? `${Math.round(h)} h` : `${Math.round(h / 24)} days`;
}

/** When, counted from the beginning of the job. */
export function clock(h: number): string {
  if (h < -0.02) return `${lives(-h)} before`;
  if (h < 0.02) return "at once";
  const day = Math.floor(h / 24);
  return day === 0 ? `after ${lives(h)}` : `day ${day + 1}, +${lives(h - day * 24)}`;
}

/** What a batch is for, a line for each layer. */
export function usesOf(batch: Batch): string[] {
  const jobs = new Set(batch.uses.map((u) => u.job));
  return batch.uses.map((u) => {
    const coats =
      u.coats === 1
        ? ""
        : u.first_coat === u.last_coat
          ? `, coat ${u.first_coat}`
          : `, coats ${u.first_coat}–${u.last_coat}`;
    return `${jobs.size > 1 ? `${u.job}: ` : ""}${u.zone_name}, layer ${u.number}${coats}`;
  });
}
