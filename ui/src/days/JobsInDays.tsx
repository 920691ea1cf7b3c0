import { Link } from "react-router";
import type { Days, DaysChosen, JobChosen } from "../api/client";
import { useBackwards } from "../api/days";
import { useJobs } from "../api/workshop";
import { Choice, Stepper } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";
import { withJob, withMore } from "./change";
import { Hurries } from "./Hurries";

interface Props {
  days: Days;
  chosen: DaysChosen;
  onChange: (chosen: DaysChosen) => void;
}

/** The jobs in the days: when each is finished, what was promised, which comes first. */
export function JobsInDays({ days, chosen, onChange }: Props) {
  const backwards = useBackwards(chosen, true);
  return (
    <section aria-labelledby="jobs-in-days">
      <h2 id="jobs-in-days" className="sr-only">
        Jobs in the days
      </h2>
      <ul className="grid gap-x-8 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
        {days.jobs.map((job) => {
          const one = chosen.jobs.find((j) => j.job === job.job);
          const last = backwards.data?.jobs.find((j) => j.job === job.job);
          return (
            <li key={job.job} className="border-t-2 border-ink pt-2">
              <Link to={`/jobs/${job.job}`} className="bg-tape px-2 py-0.5 font-semibold hover:underline">
                {job.name}
              </Link>
              <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3">
                <dt className="narrow text-sm font-semibold text-soft">Finished</dt>
                <dd className="numeral text-lg">{job.finished}</dd>
                <dt className="narrow text-sm font-semibold text-soft">Ready for light use from</dt>
                <dd className="numeral text-lg">{job.gently}</dd>
              </dl>
              {job.late && <Alert>{job.late} later than promised.</Alert>}
              {last?.begin_by && (
                <p className="narrow text-sm">
                  <strong>Begin by {last.begin_by}</strong> at the latest, by what was tried.
                </p>
              )}
              {last && !last.begin_by && (
                <div className="narrow text-sm">
                  <p>Could be promised for {last.kept_from}. What would have to give:</p>
                  <ul>
                    {last.gives.map((g) => (
                      <li key={g.says}>
                        {g.says}: {g.late ? `${g.late} late` : "in time"}
                      </li>
                    ))}
                  </ul>
                </div>
              )}
              {one && <Promised one={one} name={job.name} {...{ chosen, onChange }} />}
            </li>
          );
        })}
      </ul>
      <div className="mt-3 grid gap-x-8 gap-y-2 lg:grid-cols-[minmax(0,20rem)_1fr]">
        <More {...{ chosen, onChange }} />
        {backwards.data && <Hurries hurries={backwards.data.hurries} days={days} />}
      </div>
    </section>
  );
}

function Promised({ one, name, chosen, onChange }: Omit<Props, "days"> & { one: JobChosen; name: string }) {
  const change = (made: Partial<JobChosen>) =>
    onChange(withJob(chosen, one.job, (job) => ({ ...job, ...made })));
  return (
    <details className="mt-1">
      <summary className="narrow inline-flex min-h-11 items-center text-sm underline">
        Dates and order
      </summary>
      <div className="grid gap-2 sm:grid-cols-2">
        <label className={LABEL}>
          Promised for
          <input
            type="datetime-local"
            className="tape block w-full text-ink"
            value={one.due}
            aria-label={`${name} is promised for`}
            onChange={(e) => change({ due: e.target.value })}
          />
        </label>
        <Choice
          label="To be"
          value={one.due_for}
          options={[
            { slug: "gently", name: "used gently" },
            { slug: "finished", name: "finished, still curing" },
          ]}
          onChange={(to) => change({ due_for: to as JobChosen["due_for"] })}
        />
        <label className={LABEL}>
          Not before
          <input
            type="datetime-local"
            className="tape block w-full text-ink"
            value={one.not_before}
            aria-label={`${name} is not begun before`}
            onChange={(e) => change({ not_before: e.target.value })}
          />
        </label>
        <Stepper
          label={`Turn of ${name}`}
          value={one.priority}
          min={1}
          max={9}
          shown={one.priority === 1 ? "first" : `${one.priority}`}
          onChange={(priority) => change({ priority })}
        />
      </div>
      <button
        type="button"
        className="press mt-2"
        onClick={() => onChange({ ...chosen, jobs: chosen.jobs.filter((j) => j.job !== one.job) })}
      >
        Take it out of the days
      </button>
    </details>
  );
}

/** Another job into the days. */
export function More({ chosen, onChange }: Omit<Props, "days">) {
  const jobs = useJobs();
  const list = (jobs.data ?? []).flatMap((page) => page.jobs);
  const left = list.filter((j) => !chosen.jobs.some((one) => one.job === j.id));
  if (!left.length) return null;
  return (
    <div className="max-w-sm">
      <Choice
        label="Put a job into the days"
        value=""
        options={[{ slug: "", name: "Choose a job" }, ...left.map((j) => ({ slug: j.id, name: j.name }))]}
        onChange={(id) => id && onChange(withMore(chosen, id))}
      />
    </div>
  );
}
