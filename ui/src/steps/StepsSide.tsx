import { useState } from "react";
import type { Catalogue, Procedure, Task } from "../api/client";
import { useSteps } from "../api/queries";
import { hours } from "../finish/waits";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { LABEL, Loading } from "../parts/notices";
import { say } from "../parts/say";

const minutes = (m: number) => (m < 90 ? `${Math.round(m)} min` : `${say(Math.round((m / 60) * 4) / 4)} h`);

/** The whole job as a procedure to read: what to lay out, then step by step, with what right looks like. */
export function StepsSide({ open, catalogue, zone }: { open: OpenJob; catalogue: Catalogue; zone: number }) {
  const asked = useSteps(open.job);
  const [every, setEvery] = useState(false);
  if (asked.error) return <Failure error={asked.error} onRetry={() => void asked.refetch()} />;
  const steps = asked.data;
  if (!steps) return <Loading>Writing the steps…</Loading>;
  const id = open.job.zones[zone]?.id;
  const shown = every ? steps.zones : steps.zones.filter((z) => z.zone === id);
  return (
    <section
      aria-label="The steps"
      className="bg-enamel p-4 max-lg:border-t-2 max-lg:border-ink lg:col-span-2 lg:px-8"
    >
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div className="flex flex-wrap gap-x-8 gap-y-2">
          <Sum name="Hands on, all zones" value={minutes(steps.hands_on_min)} />
          <Sum name="From first to last step" value={hours(steps.elapsed_h)} />
        </div>
        {open.job.zones.length > 1 && (
          <button type="button" className="press" aria-pressed={every} onClick={() => setEvery(!every)}>
            All zones
          </button>
        )}
      </div>
      <p className="narrow mt-1 text-sm text-soft">
        Estimates, from the pace of each technique and its drying in this room. One zone dries while another
        is worked.
      </p>
      {steps.first.map((text) => (
        <p key={text} className="mt-3 border-2 border-ink p-2">
          <strong>Before anything else.</strong> {text}
        </p>
      ))}
      <LayOut steps={steps} />
      {shown.map((zone) => (
        <div key={zone.zone}>
          <h2 className="wide mt-6 border-b-2 border-ink pb-1 text-lg font-bold">
            {zone.name}{" "}
            <span className="narrow text-sm font-normal">
              {minutes(zone.hands_on_min)} hands on, {hours(zone.elapsed_h)} altogether
              {zone.unknown_waits > 0 && ", and a wait only the label knows"}
            </span>
          </h2>
          <ol>
            {zone.tasks.map((task, i) => (
              <Step key={task.id} task={task} number={i + 1} catalogue={catalogue} />
            ))}
          </ol>
        </div>
      ))}
    </section>
  );
}

function Sum({ name, value }: { name: string; value: string }) {
  return (
    <p>
      <span className={LABEL}>{name}</span>
      <span className="numeral text-2xl">{value}</span>
    </p>
  );
}

function LayOut({ steps }: { steps: Procedure }) {
  return (
    <details className="mt-4 border-2 border-ink" open>
      <summary className="min-h-11 px-3 py-2 font-semibold">
        Lay out first ({steps.kit.length} things)
      </summary>
      <ul className="grid grid-cols-2 gap-x-6 px-3 pb-3 xl:grid-cols-3">
        {steps.kit.map((thing) => (
          <li key={thing} className="flex items-baseline gap-2">
            <span aria-hidden className="inline-block size-4 shrink-0 border-2 border-ink" />
            {thing}
          </li>
        ))}
      </ul>
    </details>
  );
}

function Step({ task, number, catalogue }: { task: Task; number: number; catalogue: Catalogue }) {
  const wait = task.wait_min === null ? null : task.wait_min / 60;
  const waits = task.wait_min === null || task.wait_min > 0;
  const recipe = catalogue.recipes.length ? task.layer : "";
  return (
    <li
      data-layer={recipe}
      className="grid grid-cols-[2.75rem_1fr] border-b border-line py-3 sm:grid-cols-[3.5rem_1fr_7rem]"
    >
      <span className="numeral text-2xl">{number}</span>
      <div className="min-w-0">
        <h3 className="font-bold">{task.says}</h3>
        {task.take_care.map((text) => (
          <p key={text} className="my-1.5 border-2 border-ink px-2 py-1 text-sm">
            <strong>Take care.</strong> {text}
          </p>
        ))}
        {task.how
          .filter((line) => line)
          .map((line) => (
            <p key={line}>{line}</p>
          ))}
        {task.check && (
          <p className="mt-1">
            <strong>Right when:</strong> {task.check}
          </p>
        )}
        {task.rescues.length > 0 && (
          <details>
            <summary className="narrow min-h-11 py-2 text-sm underline">If it goes wrong</summary>
            <ul className="narrow text-sm">
              {task.rescues.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
          </details>
        )}
        {waits && (
          <p className="mt-2 border-l-8 border-line pl-2">
            <strong>
              {wait === null ? "Then wait as long as the label says." : `Then leave it ${hours(wait)}.`}
            </strong>{" "}
            {task.wait_check}
          </p>
        )}
      </div>
      <span className="narrow text-right text-sm text-soft max-sm:col-start-2 max-sm:text-left">
        {minutes(task.hands_on_min)}
      </span>
    </li>
  );
}
