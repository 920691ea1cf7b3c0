import { useState } from "react";
import type { Kit, KitMeasure } from "../api/client";
import { useChoose, useDeleteKit, usePutKit } from "../api/edits";
import { useCatalogue, useSettings } from "../api/workshop";
import { KeptWord } from "../keep/KeptWord";
import { Failure } from "../parts/Failure";
import { FilePanel } from "../parts/FilePanel";
import { Choice, NumberField } from "../parts/fields";
import { Loading } from "../parts/notices";
import { newId, percent, say } from "../parts/say";
import { sound } from "../parts/sound";
import { TextField } from "../parts/TextField";
import { useAddress } from "../parts/useAddress";
import { useDraft } from "../parts/useDraft";
import { usePlace } from "../parts/usePlace";
import { TypedKit } from "./KitChoice";

const SHAPES = ["spoon", "scoop", "cup", "jug", "syringe"] as const;

/** The measures one owns: several kits, one in use, each drawn to one scale. */
export function KitView() {
  const catalogue = useCatalogue();
  const settings = useSettings();
  const choose = useChoose();
  const put = usePutKit();
  const [looked, look] = useAddress("kit", "");
  usePlace("Measuring kit");
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!catalogue.data || !settings.data) return <Loading>Opening the drawer…</Loading>;
  const { kits, own_kits } = catalogue.data;
  const kit = kits.find((k) => k.slug === (looked || settings.data.kit)) ?? kits[0];
  if (!kit) return null;
  const error = put.error ?? choose.error;

  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <h1 className="wide text-xl font-bold">Measuring kit</h1>
      {error && <Failure error={error} />}
      <div className="mt-4 grid gap-8 lg:grid-cols-[16rem_1fr]">
        <section aria-label="Kits">
          <ul className="flex flex-col">
            {kits.map((k) => (
              <li key={k.slug} className="-mt-0.5">
                <button
                  type="button"
                  className="press w-full text-left"
                  aria-pressed={k.slug === kit.slug}
                  onClick={() => look(k.slug)}
                >
                  {k.name}
                  <span className="narrow block text-sm font-normal">
                    {k.slug === settings.data.kit ? "in use" : `${k.measures.length} measures`}
                    {k.scale_g > 0 && `, scale to ${say(k.scale_g)} g`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="press mt-3 w-full"
            onClick={() => {
              const slug = `own-${newId()}`;
              put.mutate(
                { entry: { ...kit, slug, name: `${kit.name}, mine` }, read: 0 },
                { onSuccess: () => look(slug) },
              );
            }}
          >
            Copy as another kit
          </button>
          <div className="mt-4">
            <TypedKit
              onMade={(slug) => {
                look(slug);
                choose.mutate({ ...settings.data, kit: slug });
              }}
            />
          </div>
        </section>
        <div className="min-w-0">
          {kit.slug !== settings.data.kit && (
            <button
              type="button"
              className="press press-strong mb-4"
              onClick={() => choose.mutate({ ...settings.data, kit: kit.slug })}
            >
              Measure with this kit
            </button>
          )}
          <Editor key={kit.slug} saved={kit} revision={own_kits[kit.slug] ?? 0} />
        </div>
      </div>
      <FilePanel what="kits" says="Your own kits, to keep or to pass on." />
    </div>
  );
}

/** One kit: its measures, its scale, and how much it may be off. It keeps itself. */
function Editor({ saved, revision }: { saved: Kit; revision: number }) {
  const put = usePutKit();
  const remove = useDeleteKit();
  const { draft: kit, change, kept, undo } = useDraft(saved, revision, put.mutateAsync);
  const error = put.error ?? remove.error;
  return (
    <section aria-label={kit.name} className="min-w-0">
      <TextField
        label="Name of the kit"
        value={kit.name}
        required
        strong
        onChange={(name) => change({ name })}
      />
      {error && <Failure error={error} />}
      <Drawer measures={kit.measures} />
      <ul>
        {kit.measures.map((measure, i) => (
          <MeasureLine
            // biome-ignore lint/suspicious/noArrayIndexKey: measures keep their place
            key={i}
            measure={measure}
            onChange={(next) => change({ measures: kit.measures.map((m, k) => (k === i ? next : m)) })}
            onRemove={() => change({ measures: kit.measures.filter((_, k) => k !== i) })}
          />
        ))}
      </ul>
      <AddMeasure onAdd={(measure) => change({ measures: [...kit.measures, measure] })} />
      <div className="mt-6 grid max-w-2xl gap-4 sm:grid-cols-3">
        <NumberField
          label="Scale shows every"
          value={kit.scale_g}
          unit="g"
          min={0}
          max={1000}
          onChange={(scale_g) => change({ scale_g })}
        />
        <NumberField
          label="May mix too much by"
          value={Math.round(kit.surplus * 100)}
          unit="%"
          min={0}
          max={300}
          onChange={(surplus) => change({ surplus: surplus / 100 })}
        />
        <NumberField
          label="Shares may be off by"
          value={Math.round(kit.tolerance * 1000) / 10}
          unit="%"
          min={0}
          max={50}
          onChange={(tolerance) => change({ tolerance: tolerance / 100 })}
        />
      </div>
      <p className="narrow mt-1 text-sm text-soft">
        0 g means there is no scale. Up to {percent(kit.surplus)} more than needed is mixed where that
        measures better.
      </p>
      <KeptWord doc={`kit/${kit.slug}`} kept={kept} undo={undo} />
      {revision > 0 && (
        <button
          type="button"
          className="press mt-5"
          onClick={() => remove.mutate({ entry: kit, read: revision })}
        >
          {kit.slug.startsWith("own-") ? "Take this kit out" : "Put it back as it came"}
        </button>
      )}
    </section>
  );
}

/** How many marks fit on the drawing of a measure. */
const marks = (m: KitMeasure) => Math.min(10, Math.floor(m.ml / m.step_ml));

/** The measures side by side, their areas true to what they hold. */
function Drawer({ measures }: { measures: KitMeasure[] }) {
  const sorted = [...measures].sort((a, b) => a.ml - b.ml);
  const largest = sorted.at(-1)?.ml ?? 1;
  const size = (ml: number) => Math.max(6, 84 * Math.sqrt(ml / largest));
  return (
    <div
      role="img"
      aria-label={`${measures.length} measures, drawn to one scale`}
      className="my-4 flex min-h-24 flex-wrap items-end gap-4 border-b-2 border-ink bg-enamel p-3"
    >
      {sorted.map((m) => (
        <span key={m.name + String(m.ml)} className="flex flex-col items-center gap-1">
          <svg aria-hidden width={size(m.ml) + 4} height={size(m.ml) + 4} className="overflow-visible">
            {m.kind === "spoon" || m.kind === "scoop" ? (
              <path
                d={`M2 2H${size(m.ml) + 2}C${size(m.ml) + 2} ${size(m.ml) * 1.3} 2 ${size(m.ml) * 1.3} 2 2Z`}
                fill="var(--color-steel)"
                stroke="var(--color-ink)"
                strokeWidth="2"
              />
            ) : (
              <path
                d={`M2 0V${size(m.ml) + 2}H${size(m.ml) + 2}V0`}
                fill="var(--color-steel)"
                stroke="var(--color-ink)"
                strokeWidth="2"
              />
            )}
            {m.step_ml > 0 &&
              size(m.ml) > 30 &&
              Array.from({ length: marks(m) }, (_, k) => (k + 1) / marks(m)).map((f) => (
                <path
                  key={f}
                  d={`M2 ${(size(m.ml) + 2) * (1 - f)}h${size(m.ml) / 3}`}
                  stroke="var(--color-ink)"
                  strokeWidth="1.2"
                />
              ))}
          </svg>
          <span className="narrow text-xs font-semibold">{m.name}</span>
        </span>
      ))}
      {measures.length === 0 && <span className="text-soft">Nothing to pour with: amounts are weighed.</span>}
    </div>
  );
}

interface MeasureLineProps {
  measure: KitMeasure;
  onChange: (measure: KitMeasure) => void;
  onRemove: () => void;
}

function MeasureLine({ measure, onChange, onRemove }: MeasureLineProps) {
  return (
    <li className="grid grid-cols-2 items-end gap-2 border-b border-line py-2 sm:grid-cols-[1fr_8rem_8rem_8rem_auto]">
      <TextField
        label="Measure"
        value={measure.name}
        required
        onChange={(name) => onChange({ ...measure, name })}
      />
      <NumberField
        label="holds"
        value={Math.round(measure.ml * 1000) / 1000}
        unit="ml"
        min={0.05}
        max={20000}
        onChange={(ml) => onChange({ ...measure, ml })}
      />
      <NumberField
        label="marks every"
        value={measure.step_ml}
        unit="ml"
        min={0}
        max={5000}
        onChange={(step_ml) => onChange({ ...measure, step_ml })}
      />
      <Choice
        label="kind"
        value={measure.kind}
        options={SHAPES.map((s) => ({ slug: s, name: s }))}
        onChange={(kind) => onChange({ ...measure, kind: SHAPES.find((s) => s === kind) ?? "spoon" })}
      />
      <button type="button" className="press" aria-label={`Take out ${measure.name}`} onClick={onRemove}>
        ×
      </button>
    </li>
  );
}

/** Two minutes with a scale and some water say how much a scoop holds: a gram of water is a millilitre. */
function AddMeasure({ onAdd }: { onAdd: (measure: KitMeasure) => void }) {
  const [name, setName] = useState("");
  const [ml, setMl] = useState(15);
  return (
    <div className="mt-4 max-w-2xl border-t border-line pt-3">
      <h2 className="text-base font-bold">A measure of your own</h2>
      <p className="narrow text-sm text-soft">
        How much is your scoop? Fill it level with water and weigh that: a gram is a millilitre.
      </p>
      <div data-asked className="mt-2 grid grid-cols-[1fr_8rem_auto] items-end gap-2">
        <TextField label="What you call it" value={name} placeholder="my blue cup" onChange={setName} />
        <NumberField label="holds" value={ml} unit="ml" min={0.05} max={20000} onChange={setMl} />
        <button
          type="button"
          className="press"
          disabled={!name.trim()}
          onClick={(e) => {
            if (!sound(e.currentTarget)) return;
            onAdd({ name: name.trim(), ml, step_ml: 0, kind: "scoop" });
            setName("");
          }}
        >
          Add it
        </button>
      </div>
    </div>
  );
}
