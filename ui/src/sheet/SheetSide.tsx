import { useState } from "react";
import type { Batch, Catalogue, MixSheet, PieceGeometry, WhatIf } from "../api/client";
import { type MixSource, useMeasured, useMixSheet } from "../api/queries";
import { useJobs, useSettings } from "../api/workshop";
import type { OpenJob } from "../job/useJob";
import { KitChoice } from "../kit/KitChoice";
import { Failure } from "../parts/Failure";
import { intoView } from "../parts/intoView";
import { Alert, LABEL, Loading, TakeCare, Term } from "../parts/notices";
import { amount, clock, lasts, ml, percent } from "../parts/say";
import { useAddress } from "../parts/useAddress";
import { filled } from "../pot/fillings";
import { Pot } from "../pot/Pot";
import { PrintBar } from "./PrintBar";
import { Sections } from "./Sections";
import { WhatIfPanel } from "./WhatIfPanel";
import { usesOf } from "./words";

/** Every batch of the job in the order it is mixed; one of them open; what would change if. */
export function SheetSide(props: { open: OpenJob; catalogue: Catalogue; zone: number }) {
  const { open, catalogue, zone } = props;
  const [withJobs, setWithJobs] = useState<string[]>([]);
  const [stepDown, setStepDown] = useState(false);
  const [tried, setTried] = useState<WhatIf | null>(null);
  const [kit, setKit] = useState("");
  const [picked, setPicked] = useAddress("batch", "");
  const settings = useSettings();
  const ask: WhatIf | null = tried || stepDown ? { coats: {}, ...tried, step_down: stepDown } : null;
  const asked = useMixSheet(open.job, withJobs, ask);
  if (asked.error)
    return (
      <div className="md:col-span-2">
        <Failure error={asked.error} onRetry={() => void asked.refetch()} />
      </div>
    );
  if (!asked.data) return <Loading>Working out the batches…</Loading>;
  const { now } = asked.data;
  const shown = stepDown && asked.data.then ? asked.data.then : now;
  const batch = shown.batches.find((b) => b.id === picked) ?? shown.batches[0];

  return (
    <>
      <section aria-label="The sheet" className="flex flex-col gap-3 border-ink p-4 md:border-r-2">
        <p className="flex flex-wrap items-baseline gap-x-4">
          <span>
            <span className="numeral text-2xl">{amount(shown.mixed_ml, "ml").value}</span>{" "}
            {amount(shown.mixed_ml, "ml").unit} in {shown.batches.length}{" "}
            {shown.batches.length === 1 ? "batch" : "batches"}
          </span>
        </p>
        {shown.problems.map((p) => (
          <Alert key={p.at + p.says} quiet>
            <strong>{p.says}</strong> Ways out: {p.allowed}.
          </Alert>
        ))}
        {shown.sections
          .filter((s) => s.says)
          .map((s) => (
            <Alert key={s.layer + s.surface} quiet>
              <strong>
                {s.surface}: {s.says}
              </strong>
            </Alert>
          ))}
        {shown.batches.length === 0 && (
          <p className="text-soft">Nothing to mix yet: the piece needs its sizes, and a zone its layers.</p>
        )}
        {shown.not_measured && <p className="font-semibold">{shown.not_measured}</p>}
        <KitChoice catalogue={catalogue} />
        <ol aria-label="Batches, the first to mix first">
          {shown.batches.map((b) => (
            <li key={b.id}>
              <BatchRow
                batch={b}
                on={b.id === batch?.id}
                source={{ job: open.job, batch: b.id, with_jobs: withJobs, what_if: stepDown ? ask : null }}
                kit={kit || (settings.data?.kit ?? "")}
                onPick={() => {
                  setPicked(b.id);
                  intoView("batch");
                }}
              />
            </li>
          ))}
        </ol>
        <Pooling sheet={shown} />
        <Takes sheet={shown} />
        <fieldset>
          <legend className={LABEL}>On this sheet too</legend>
          <OtherJobs open={open} chosen={withJobs} onChange={setWithJobs} />
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-6 accent-dark"
              checked={stepDown}
              onChange={(e) => setStepDown(e.target.checked)}
            />
            begin each stacked wash from what is left of the last
          </label>
        </fieldset>
        <PrintBar open={open} withJobs={withJobs} stepDown={stepDown} />
        <WhatIfPanel
          zone={zone}
          open={open}
          catalogue={catalogue}
          sheets={asked.data}
          tried={tried}
          onTry={setTried}
          kit={kit}
          onKit={setKit}
        />
      </section>
      <section
        id="batch"
        aria-label="The batch"
        className="bg-enamel p-4 max-md:border-t-2 max-md:border-ink"
      >
        {batch && (
          <OneBatch
            key={batch.id}
            batch={batch}
            source={{
              job: open.job,
              batch: batch.id,
              with_jobs: withJobs,
              what_if: stepDown ? ask : null,
            }}
            kit={kit}
            drawing={open.plan.drawing}
            sections={shown.sections.filter((s) => batch.uses.some((u) => u.layer === s.layer))}
          />
        )}
      </section>
    </>
  );
}

/** One line of the sheet: when, what, how much, in what, for what. */
function BatchRow(props: { batch: Batch; on: boolean; source: MixSource; kit: string; onPick: () => void }) {
  const { batch, on, source, kit, onPick } = props;
  const said = amount(batch.mix.volume.value, "ml");
  const measured = useMeasured(batch.mix, source, kit);
  const larger = measured.data?.options.length ? null : measured.data?.larger;
  const way = measured.data?.options[0] ?? larger;
  return (
    <button
      type="button"
      aria-pressed={on}
      className="grid min-h-11 w-full grid-cols-[5.4rem_1fr_auto] gap-x-3 border-t border-l-4 border-line border-l-transparent px-2 py-2 text-left hover:bg-enamel aria-pressed:border-l-ink aria-pressed:bg-enamel"
      onClick={onPick}
    >
      <span className="narrow text-sm leading-tight">
        {clock(batch.mix_at_h * 60)}
        {batch.of > 1 && (
          <span className="block">
            {batch.number} of {batch.of}
          </span>
        )}
      </span>
      <span className="min-w-0">
        <span className="flex flex-wrap items-baseline gap-x-2">
          <span
            aria-hidden
            className="size-3.5 shrink-0 border border-current"
            style={{ background: batch.hex }}
          />
          <span className="font-semibold">{batch.name}</span>
          {batch.colour && <span className="bg-tape px-1 text-sm">{batch.colour}</span>}
        </span>
        <span className="narrow block text-xs font-normal">{usesOf(batch).join("; ")}</span>
        {way && (
          <span className="narrow block text-sm font-normal">
            {larger &&
              `At the least ${ml(batch.mix.volume.value * (1 + way.surplus))}, ${Math.round(way.surplus * 100)} % over: `}
            {way.parts
              .map(
                (p) =>
                  `${batch.mix.parts.find((x) => x.component === p.component)?.name ?? ""}: ${filled(p.fillings)}`,
              )
              .join("; ")}
          </span>
        )}
        {measured.data && !way && measured.data.weighed.length === 0 && (
          <span className="narrow block text-sm font-normal">Your kit cannot measure it: open it.</span>
        )}
      </span>
      <span className="text-right">
        <span className="numeral text-lg">{said.value}</span> {said.unit}
        <span className="narrow block text-xs font-normal">{batch.vessel}</span>
      </span>
    </button>
  );
}

interface OneBatchProps {
  batch: Batch;
  source: MixSource;
  kit: string;
  sections: MixSheet["sections"];
  drawing: PieceGeometry | null | undefined;
}

/** A batch open: the pot, and around it when, how long, what first, what is kept, what to take care of. */
function OneBatch({ batch, source, kit, sections, drawing }: OneBatchProps) {
  const settings = useSettings();
  const step = batch.step_down;
  const rest = batch.rest_min ?? (batch.ready_h - batch.mix_at_h) * 60;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="wide text-lg font-bold">
        {batch.name}
        {batch.of > 1 && ` ${batch.number} of ${batch.of}`}
        {batch.colour && <span className="ml-2 bg-tape px-1.5 text-base font-semibold">{batch.colour}</span>}
      </h2>
      <p className="narrow -mt-2 text-sm">{usesOf(batch).join("; ")}</p>
      <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
        <Term name="Mix">{clock(batch.mix_at_h * 60)}</Term>
        {rest > 0.5 && (
          <Term name="Rest">{`${lasts(rest)}, then stir again; ready ${clock(batch.ready_h * 60)}`}</Term>
        )}
        {batch.pot_test && <Term name="Right when">{batch.pot_test}</Term>}
        {batch.first_ml > 0 && batch.first_ml < batch.mix.volume.value && (
          <Term name="First">{`${amount(batch.first_ml, "ml").value} ml in these shares: look, correct with what is left, then the rest`}</Term>
        )}
        <Term name="Use">
          {batch.use_by_h === null
            ? "as long as its label says"
            : `within ${lasts((batch.use_by_h - batch.ready_h) * 60)} once ready; the work takes about ${lasts(batch.work_min)}`}
        </Term>
        {batch.kept_for && <Term name="Keep">{batch.kept_for}</Term>}
        {batch.matching && <Term name="To match">{batch.matching}</Term>}
      </dl>
      {step && step.from_last_ml > 0 && (
        <div className="border-l-8 border-line pl-3">
          <p>
            <strong>From what is left:</strong> {Math.round(step.from_last_ml)} ml of the last wash
            {step.rinse_ml > 0 && `, ${Math.round(step.rinse_ml)} ml of rinse water`}, then what is measured
            below: {Math.round(step.ml)} ml in the pot.
          </p>
          <p className="narrow text-sm">
            It carries {step.carried.map((c) => `${percent(c.share)} ${c.name}`).join(", ") || "nothing"} of
            its paint over; saves {step.saved_paint_ml.toFixed(1)} ml of paint.
            {step.poured_off_ml > 1 &&
              ` Put ${Math.round(step.poured_off_ml)} ml of the last aside: more than it can take up.`}
          </p>
        </div>
      )}
      <Sections plans={sections} drawing={drawing} />
      <Pot mix={batch.mix} source={source} kit={kit || (settings.data?.kit ?? "")} />
      <TakeCare texts={batch.cautions} />
    </div>
  );
}

/** What is pooled and what that saves; what needs a pot of its own, and why. */
function Pooling({ sheet }: { sheet: MixSheet }) {
  if (!sheet.pooled.length && !sheet.apart.length) return null;
  return (
    <details data-paper className="border-t border-line">
      <summary className="min-h-11 py-2 font-semibold">
        Pooled: {sheet.pooled.length}
        {sheet.apart.length > 0 && `, kept apart: ${sheet.apart.length}`}
      </summary>
      <ul className="narrow text-sm">
        {sheet.pooled.map((p) => (
          <li key={p.batch} className="border-t border-line py-1.5">
            <strong>{p.name}</strong> for {p.zones.join(", ")}: {amount(p.together_ml, "ml").value}{" "}
            {amount(p.together_ml, "ml").unit}, {p.saved_ml.toFixed(1)} ml less than each alone.
          </li>
        ))}
        {sheet.apart.map((a) => (
          <li key={a.name + a.why + a.zones.join()} className="border-t border-line py-1.5">
            <strong>{a.name}</strong> for {a.zones.join(", ")} is another pot. {a.why}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What it all takes, by material, colours apart: the list for the shelf. */
function Takes({ sheet }: { sheet: MixSheet }) {
  if (!sheet.totals.materials.length) return null;
  return (
    <details data-paper className="border-t border-line">
      <summary className="min-h-11 py-2 font-semibold">
        What it all takes ({sheet.totals.materials.length} materials)
      </summary>
      <table className="w-full">
        <tbody>
          {sheet.totals.materials.map((m) => (
            <tr key={m.material + m.colour + m.hex} className="border-t border-line align-baseline">
              <th scope="row" className="py-1 text-left font-normal">
                {m.name} {m.colour && <span className="bg-tape px-1 text-sm">{m.colour}</span>}
              </th>
              <td className="numeral text-right text-lg whitespace-nowrap">
                {amount(m.ml, "ml").value} <span className="text-sm">{amount(m.ml, "ml").unit}</span>
              </td>
              <td className="numeral pl-3 text-right text-lg whitespace-nowrap">
                {amount(m.g, "g").value} <span className="text-sm">{amount(m.g, "g").unit}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

function OtherJobs(props: { open: OpenJob; chosen: string[]; onChange: (ids: string[]) => void }) {
  const { open, chosen, onChange } = props;
  const jobs = useJobs();
  const others = (jobs.data ?? [])
    .flatMap((page) => page.jobs)
    .filter((j) => j.id !== open.id && j.has_piece && !j.fault);
  if (!others.length) return null;
  return (
    <details>
      <summary className="min-h-11 py-2">
        {chosen.length ? `${chosen.length} other ${chosen.length === 1 ? "job" : "jobs"}` : "other jobs"}
      </summary>
      {others.map((job) => (
        <label key={job.id} className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-6 accent-dark"
            checked={chosen.includes(job.id)}
            onChange={(e) =>
              onChange(e.target.checked ? [...chosen, job.id] : chosen.filter((id) => id !== job.id))
            }
          />
          {job.name}
        </label>
      ))}
    </details>
  );
}
