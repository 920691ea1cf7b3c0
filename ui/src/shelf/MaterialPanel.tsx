import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Coverage, Refused, type ShelfItem, type ShelfLine } from "../api/client";
import { useDeleteShelf, usePutShelf } from "../api/edits";
import { useCatalogue, useSettings } from "../api/workshop";
import { KeptWord } from "../keep/KeptWord";
import { Failure } from "../parts/Failure";
import { Choice, NumberField } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";
import { dayOf, say } from "../parts/say";
import { sound } from "../parts/sound";
import { useDraft } from "../parts/useDraft";
import { CoverageField } from "./CoverageField";
import { Hides } from "./Hides";

/** Values of the models, which few painters ask for. */
const MODEL = new Set(["true_density", "swelling", "packing_limit", "viscosity_mpa_s", "scattering"]);

/** One material: stock, and its values, each with where it comes from and a way back. */
export function MaterialPanel({ line }: { line: ShelfLine }) {
  const { material } = line;
  const put = usePutShelf(material.name);
  const remove = useDeleteShelf(material.name);
  const { draft: item, change, kept, undo } = useDraft(line.item, line.revision, put.mutateAsync);
  const overlay = (field: string, value: number, source: "label" | "measured", said = "") => {
    const before = item.overlays.find((o) => o.field === field);
    setReplaced(
      before && before.source !== source
        ? `In place of what the ${before.source === "label" ? "label says" : "scale said"}.`
        : "",
    );
    change({
      overlays: [
        ...item.overlays.filter((o) => o.field !== field),
        { field: field as ShelfItem["overlays"][number]["field"], value, source, at: dayOf(), said },
      ],
    });
  };
  const [replaced, setReplaced] = useState("");
  const values = (shown: ShelfLine["values"]) => (
    <ul>
      {shown.map((v) => (
        <li
          key={v.field}
          className="grid grid-cols-[1fr_auto_auto] items-center gap-2 border-t border-line py-1"
        >
          <span>
            {v.name}
            <span className="narrow block text-xs text-soft">{v.source}</span>
          </span>
          <span className="numeral text-lg">
            {v.value === 0 ? "?" : say(v.value)} <span className="text-sm font-medium">{v.unit}</span>
          </span>
          {v.source === "starting value" ? (
            <FromLabel
              field={v.field}
              name={v.name}
              unit={v.unit}
              least={v.least}
              most={v.most}
              onValue={(value, said) => overlay(v.field, value, "label", said)}
            />
          ) : (
            <button
              type="button"
              className="press text-sm"
              onClick={() => change({ overlays: item.overlays.filter((o) => o.field !== v.field) })}
            >
              Use the starting value again{v.starting !== 0 && `: ${say(v.starting)}`}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
  const fault = put.error instanceof Refused ? put.error.problem.faults?.[0] : undefined;
  return (
    <div className="grid gap-6 pb-5 pl-9 lg:grid-cols-2">
      <div className="min-w-0">
        <div className="grid grid-cols-[1fr_6rem_1fr] items-end gap-2">
          <NumberField
            label="On hand"
            value={item.on_hand}
            unit=""
            min={0}
            max={1000000}
            onChange={(on_hand) => change({ on_hand, counted_min: Math.floor(Date.now() / 60_000) })}
          />
          <Choice
            label="in"
            value={item.unit}
            options={[
              { slug: "ml", name: "ml" },
              { slug: "g", name: "g" },
            ]}
            onChange={(unit) => change({ unit: unit === "g" ? "g" : "ml" })}
          />
          <label className={LABEL}>
            Opened on
            <input
              type="date"
              className="tape w-full text-base text-ink"
              value={item.opened_on}
              onChange={(e) => change({ opened_on: e.target.value })}
            />
          </label>
        </div>
        {Math.abs(line.left_now - item.on_hand) > 0.5 && item.on_hand === line.item.on_hand && (
          <p className="narrow mt-2 text-sm">
            By what was poured since, about {say(line.left_now)} {item.unit} are left. Count it again by
            typing what is there.
          </p>
        )}
        <p className="narrow mt-2 text-sm">
          Sizes it is sold in, and prices, are under{" "}
          <Link to="/buying" className="underline">
            Buying
          </Link>
          .
        </p>
        <Weigh
          solid={material.kind === "powder"}
          onDensity={(density) => overlay("bulk_density", density, "measured")}
        />
        {material.role === "paint" && (
          <Hides hex={material.hex} onScattering={(sx) => overlay("scattering", sx, "measured")} />
        )}
        {line.on_shelf && (
          <button
            type="button"
            className="press mt-4"
            onClick={() => remove.mutate({ entry: item, read: line.revision })}
          >
            Take off the shelf, with all its values
          </button>
        )}
        {replaced && (
          <p role="status" className="said mt-2 text-sm">
            {replaced}
          </p>
        )}
        {line.on_shelf && <KeptWord doc={`shelf/${material.slug}`} kept={kept} undo={undo} />}
        {put.error && (
          <Alert>
            {put.error.message} {fault && <span className="font-normal">Allowed: {fault.allowed}.</span>}
          </Alert>
        )}
        {remove.error && <Failure error={remove.error} />}
      </div>
      <div className="min-w-0">
        <h3 className={LABEL}>What Lumso counts with</h3>
        {values(line.values.filter((v) => !MODEL.has(v.field) || v.source !== "starting value"))}
        <details>
          <summary className="min-h-11 py-2.5 text-sm">Details: what the mixing is worked out from</summary>
          {values(line.values.filter((v) => MODEL.has(v.field) && v.source === "starting value"))}
        </details>
        <p className="narrow mt-1 text-xs text-soft">{material.provenance}</p>
      </div>
    </div>
  );
}

interface FromLabelProps {
  field: string;
  name: string;
  unit: string;
  least: number;
  most: number;
  onValue: (value: number, said?: string) => void;
}

function FromLabel({ field, name, unit, least, most, onValue }: FromLabelProps) {
  const [open, setOpen] = useState(false);
  const [value, setValue] = useState(least);
  const [coverage, setCoverage] = useState<Coverage | null>(null);
  const rate = field === "label_rate_ml_per_m2";
  if (!open)
    return (
      <button
        type="button"
        className="press text-sm"
        aria-label={`${name}: from the label`}
        onClick={() => setOpen(true)}
      >
        From the label
      </button>
    );
  return (
    <span data-asked className="flex items-end gap-2">
      <span className="w-44">
        {rate ? (
          <CoverageField label={`${name}, label`} onRead={setCoverage} />
        ) : (
          <NumberField
            label={`${name}, label`}
            value={value}
            unit={unit}
            min={least}
            max={most}
            onChange={setValue}
          />
        )}
      </span>
      <button
        type="button"
        className="press text-sm"
        disabled={rate && !coverage}
        onClick={(e) => {
          if (!sound(e.currentTarget)) return;
          if (rate && coverage) onValue(coverage.ml_per_m2, coverage.said);
          else onValue(value);
          setOpen(false);
        }}
      >
        Set
      </button>
    </span>
  );
}

/** Two minutes at the scale: weigh one level measure, and the starting value gives way. */
function Weigh({ solid, onDensity }: { solid: boolean; onDensity: (density: number) => void }) {
  const catalogue = useCatalogue();
  const settings = useSettings();
  const kit = catalogue.data?.kits.find((k) => k.slug === settings.data?.kit);
  const measures = kit?.measures.length ? kit.measures : [{ name: "250 ml", ml: 250 }];
  const [chosen, setMl] = useState(0);
  const ml = measures.find((m) => m.ml === chosen)?.ml ?? measures.at(-1)?.ml ?? 250;
  const [grams, setGrams] = useState(100);
  const [refused, setRefused] = useState("");
  async function weigh() {
    try {
      const { density } = await answer(api.POST("/api/shelf/density", { body: { grams, ml } }));
      setRefused("");
      onDensity(density);
    } catch (error) {
      const fault = error instanceof Refused ? error.problem.faults?.[0] : undefined;
      setRefused(`${(error as Error).message}${fault ? ` Allowed: ${fault.allowed}.` : ""}`);
    }
  }
  return (
    <div className="mt-4 border-t border-line pt-3">
      <h3 className="font-bold">{solid ? "Weigh one level cup" : "Weigh one cup"}</h3>
      <p className="narrow text-sm text-soft">
        {solid ? "Scoop it loose, strike it level, do not pack it. " : ""}Two minutes, and the amounts are
        yours.
      </p>
      <div data-asked className="mt-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
        <Choice
          label="Measure"
          value={String(ml)}
          options={measures.map((m) => ({ slug: String(m.ml), name: m.name }))}
          onChange={(next) => setMl(Number(next))}
        />
        <NumberField label="weighs" value={grams} unit="g" min={0.1} max={100000} onChange={setGrams} />
        <button type="button" className="press" onClick={(e) => sound(e.currentTarget) && void weigh()}>
          Use it
        </button>
      </div>
      {refused && <Alert>{refused}</Alert>}
    </div>
  );
}
