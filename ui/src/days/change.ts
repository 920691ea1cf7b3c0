import type { DayOperation, DaysChosen, JobChosen } from "../api/client";

/** What was chosen, with one of its jobs otherwise. */
export function withJob(chosen: DaysChosen, job: string, change: (one: JobChosen) => JobChosen): DaysChosen {
  return { ...chosen, jobs: chosen.jobs.map((one) => (one.job === job ? change(one) : one)) };
}

/** A job that was not in the days yet, put last. */
export function withMore(chosen: DaysChosen, job: string): DaysChosen {
  if (chosen.jobs.some((one) => one.job === job)) return chosen;
  const last = Math.min(9, Math.max(0, ...chosen.jobs.map((one) => one.priority)) + 1);
  const one: JobChosen = {
    job,
    due: "",
    due_for: "gently",
    priority: last,
    not_before: "",
    flat: {},
    pins: [],
  };
  return { ...chosen, jobs: [...chosen.jobs, one] };
}

/** An operation pinned between two minutes, or, with null, no more. */
export function pinned(
  chosen: DaysChosen,
  { job, operation }: DayOperation,
  between: { from: number; until: number } | null,
): DaysChosen {
  return withJob(chosen, job, (one) => {
    const others = one.pins.filter((pin) => pin.operation !== operation.id);
    const mine = between && { operation: operation.id, from_min: between.from, until_min: between.until };
    return { ...one, pins: mine ? [...others, mine] : others };
  });
}
