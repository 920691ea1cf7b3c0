import { useState } from "react";
import type { BenchStep, Job, Procedure } from "../api/client";
import { useSteps } from "../api/queries";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { Alert, LABEL, Loading } from "../parts/notices";
import { clock, lasts } from "../parts/say";
import { PrintBar } from "../sheet/PrintBar";
import { Step } from "./Step";

/** The order of work to read: session by session, what to do, what right looks like, how long to leave it. */
export function StepsSide({ open, zone }: { open: OpenJob; zone: number }) {
  const asked = useSteps(open.job);
  const [only, setOnly] = useState(false);
  if (asked.error) return <Failure error={asked.error} onRetry={() => void asked.refetch()} />;
  const steps = asked.data;
  if (!steps) return <Loading>Writing the steps…</Loading>;
  const now = open.job.zones[zone];
  const times = steps.zones.find((z) => z.zone === now?.id);
  const shown = steps.steps.filter((s) => !only || !s.zones.length || (now && s.zones.includes(now.id)));
  return (
    <section aria-label="The steps" className="bg-enamel p-4 max-md:border-t-2 max-md:border-ink lg:px-8">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div className="flex flex-wrap gap-x-8 gap-y-2">
          <Sum name="Hands on" value={lasts(steps.hands_on_min)} />
          <Sum name="From first to last step" value={lasts(steps.elapsed_h * 60)} />
          <Sum name="At the bench" value={steps.sessions === 1 ? "once" : `${steps.sessions} times`} />
        </div>
        <PrintBar open={open} only="steps" />
        <a href={`/api/log/jobs/${open.id}/sheet.pdf`} className="press inline-flex items-center">
          Sheet to go with the piece
        </a>
        {open.job.zones.length > 1 && now && (
          <button type="button" className="press" aria-pressed={only} onClick={() => setOnly(!only)}>
            Only {now.name.toLowerCase()}
            {only && times && `, ${lasts(times.hands_on_min)} hands on`}
          </button>
        )}
      </div>
      <p className="narrow mt-1 text-sm text-soft">
        Estimates for one painter, from the pace of each technique and its drying in this room. While one zone
        dries another is worked.
      </p>
      {steps.not_measured && <p className="mt-3 font-semibold">{steps.not_measured}</p>}
      {steps.first.map((text) => (
        <p key={text} className="said mt-3">
          <strong>Before anything else.</strong> {text}
        </p>
      ))}
      {steps.missed.map((text) => (
        <div key={text} className="mt-3">
          <Alert>{text}</Alert>
        </div>
      ))}
      <LayOut kit={steps.kit} />
      {sessionsOf(shown).map((session, i) => (
        <Session key={session[0]?.operation.id} steps={session} number={i + 1} all={steps} job={open.job} />
      ))}
    </section>
  );
}

/** Steps parted where the bench is laid out; sessions with nothing in them but that are left out. */
function sessionsOf(steps: BenchStep[]): BenchStep[][] {
  const made: BenchStep[][] = [];
  for (const step of steps) {
    if (step.operation.kind === "lay out" || !made.length) made.push([]);
    made[made.length - 1]?.push(step);
  }
  const empty = new Set(["lay out", "clear away"]);
  return made.filter((session) => session.some((s) => !empty.has(s.operation.kind)));
}

interface SessionProps {
  steps: BenchStep[];
  number: number;
  all: Procedure;
  job: Job;
}

function Session({ steps, number, all, job }: SessionProps) {
  const begins = steps[0]?.operation.at_min ?? 0;
  const first = all.steps[0]?.operation.at_min ?? 0;
  const hands = steps.reduce((sum, s) => sum + s.operation.hands_on_min, 0);
  return (
    <div>
      <h2 className="wide mt-6 border-b-2 border-ink pb-1 text-lg font-bold">
        Session {number}{" "}
        <span className="narrow text-sm font-normal">
          {clock(begins - first)}, {lasts(hands)} hands on
        </span>
      </h2>
      <ol>
        {alike(steps).map((same) => (
          <Step key={same[0]?.operation.id} steps={same} several={all.zones.length > 1} job={job} />
        ))}
      </ol>
    </div>
  );
}

/** The same thing done to one zone after the other is one step to read. */
function alike(steps: BenchStep[]): BenchStep[][] {
  const made: BenchStep[][] = [];
  for (const step of steps) {
    const last = made.at(-1)?.at(-1);
    const same = last && ON_GROUND.has(step.operation.kind) && reads(last) === reads(step);
    if (same) made.at(-1)?.push(step);
    else made.push([step]);
  }
  return made;
}

const ON_GROUND = new Set(["prepare", "sand"]);
const reads = ({ operation: o, wait_min }: BenchStep) => JSON.stringify([o.kind, o.says, o.how, wait_min]);

function Sum({ name, value }: { name: string; value: string }) {
  return (
    <p>
      <span className={LABEL}>{name}</span>
      <span className="numeral text-2xl">{value}</span>
    </p>
  );
}

function LayOut({ kit }: { kit: string[] }) {
  return (
    <details data-paper className="mt-3">
      <summary className="min-h-11 py-2 font-semibold">All it takes ({kit.length} things)</summary>
      <ul className="grid grid-cols-2 gap-x-6 px-3 pb-3 xl:grid-cols-3">
        {kit.map((thing) => (
          <li key={thing} className="flex items-baseline gap-2">
            <span aria-hidden className="inline-block size-4 shrink-0 border-2 border-ink" />
            {thing}
          </li>
        ))}
      </ul>
    </details>
  );
}
