import type { Batch } from "../api/client";

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
