import type { Job, JobChanged, Plan } from "../api/client";
import { patched } from "./patch";

type Answer = JobChanged["answers"][number];

/** The job that a trip brings back: what others did, then each change, then what came after. */
export function broughtBy(
  got: JobChanged,
  base: Job,
  each: (answer: Answer, before: Job, after: Job) => void,
): Job {
  let now = patched(got.job ?? base, got.came);
  for (const answer of got.answers) {
    const before = now;
    now = patched(now, answer.patch);
    each(answer, before, now);
  }
  return patched(now, got.after);
}

/** The plan that a trip brings back: whole, or by what differs from the one that is held. */
export function planOf(got: JobChanged, held: Plan | null): Plan | null {
  if (got.whole) return got.whole;
  return held && got.plan ? patched(held, got.plan) : held;
}
