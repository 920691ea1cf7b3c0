import type { BenchStep, Job, Operation } from "../api/client";
import { Later, LaterView } from "../parts/later";
import { TakeCare } from "../parts/notices";
import { amount, lasts } from "../parts/say";
import { Worded } from "../parts/Worded";
import { pictured } from "./pictured";
import type { StagesProps } from "./Stages";

const STAGES = new LaterView<StagesProps>(async () => (await import("./Stages")).Stages);

/** A pot is for every zone it serves and says so itself; what is done on a surface says on which. */
const OF_A_POT = new Set(["mix", "rest", "stir", "clean"]);

/** One step: what is done and with what, what to take care of, what right looks like, what to wait for. */
export function Step({ steps, several, job }: { steps: BenchStep[]; several: boolean; job: Job }) {
  const [step] = steps;
  if (!step) return null;
  const { operation: o, wait_min, go_on_within_min } = step;
  const where = several && !OF_A_POT.has(o.kind) ? steps.map((s) => s.operation.zone_name) : [];
  const minutes = steps.reduce((sum, s) => sum + s.operation.hands_on_min + s.operation.lasts_min, 0);
  return (
    <li className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-line py-3 sm:grid-cols-[6.5rem_1fr_5rem]">
      <span className="narrow text-sm font-semibold text-soft max-sm:col-span-2">{o.kind}</span>
      <div className="min-w-0">
        <h3 className="font-bold">
          {where
            .filter((name) => name)
            .map((name) => (
              <span key={name} className="mr-1.5 bg-steel px-1.5">
                {name}
              </span>
            ))}
          {o.says}
        </h3>
        <Told operation={o} job={job} fresh={step} />
        {(wait_min === null || wait_min > 0) && (
          <p className="mt-2 border-l-8 border-line pl-2">
            <strong>
              {wait_min === null
                ? "Then wait as long as the label says."
                : `Then leave it ${lasts(wait_min)}.`}
            </strong>{" "}
            {step.wait_check}
          </p>
        )}
        {go_on_within_min !== null && (
          <p className="narrow mt-1 text-sm">
            Go on within {lasts(go_on_within_min)}; later: {step.else_do}.
          </p>
        )}
      </div>
      <span className="numeral text-right text-sm text-soft">{lasts(minutes)}</span>
    </li>
  );
}

interface ToldProps {
  operation: Operation;
  job: Job | string;
  /** What of it no earlier step says: the rest is folded away. */
  fresh?: Pick<BenchStep, "how" | "check">;
}

/** How an operation is done: what to take care of, what goes into a pot, what right looks like. */
export function Told({ operation: o, job, fresh = o }: ToldProps) {
  const lines = o.how.filter((line) => line && !fresh.how.includes(line));
  const check = o.check === fresh.check ? "" : o.check;
  const before = (lines.length > 0 || check) && { lines, check };
  return (
    <>
      <TakeCare texts={o.take_care} again={o.remember} />
      {o.amounts && <Poured amounts={o.amounts} />}
      {o.kind === "lay out" && <p className="narrow text-sm">{o.tools.join(" · ")}</p>}
      <How lines={fresh.how} check={fresh.check} />
      {before && (
        <details>
          <summary className="narrow min-h-11 py-2 text-sm underline">As before</summary>
          <How {...before} />
        </details>
      )}
      {pictured(o) && <Later view={STAGES} given={{ operation: o, job }} />}
      {o.rescues.length > 0 && (
        <details data-paper>
          <summary className="narrow min-h-11 py-2 text-sm underline">If it goes wrong</summary>
          <ul className="narrow text-sm">
            {o.rescues.map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function How({ lines, check }: { lines: string[]; check: string }) {
  return (
    <>
      {lines
        .filter((line) => line)
        .map((line) => (
          <p key={line}>
            <Worded>{line}</Worded>
          </p>
        ))}
      {check && (
        <p className="mt-1">
          <strong>Right when:</strong> <Worded>{check}</Worded>
        </p>
      )}
    </>
  );
}

/** What goes into a pot: each part, with its colour and the paints that is mixed from. */
function Poured({ amounts }: { amounts: NonNullable<Operation["amounts"]> }) {
  const said = (ml: number) => `${amount(ml, "ml").value} ${amount(ml, "ml").unit}`;
  return (
    <ul className="my-1.5">
      {amounts.from_last_ml > 0 && (
        <li>
          {said(amounts.from_last_ml)} left of the last wash, {said(amounts.rinse_ml)} of rinse water
        </li>
      )}
      {amounts.parts.map((part) => (
        <li key={part.component} className="flex flex-wrap items-baseline gap-x-2">
          <span aria-hidden className="size-3.5 border border-ink" style={{ background: part.hex }} />
          <span className="numeral text-[1.2em]">{said(part.ml)}</span>
          {part.name.toLowerCase()}
          {part.colour && <span className="bg-tape px-1 text-sm font-semibold">{part.colour}</span>}
          {part.tints.length > 0 && (
            <span className="narrow text-sm">
              {part.tints.map((t) => `${said(t.ml)} ${t.name || "paint"}`).join(" + ")}
            </span>
          )}
        </li>
      ))}
      <li className="narrow text-sm text-soft">
        {said(amounts.mixed_ml)} altogether, {said(amounts.laid_ml)} of it for the surface
        {amounts.short_ml > 0 && `: ${said(amounts.short_ml)} too little`}
      </li>
    </ul>
  );
}
