import { useState } from "react";
import type { Job, Length } from "../api/client";
import { useChoose } from "../api/edits";
import { useSettings } from "../api/workshop";
import { Choice, LengthField, NumberField } from "../parts/fields";
import { Fault, LABEL } from "../parts/notices";
import { TextField } from "../parts/TextField";
import { Ticks } from "../parts/Ticks";
import { useArea } from "../parts/useArea";
import { changePiece } from "./change";
import type { OpenJob } from "./useJob";

type Use = Job["use"];
type Answered = Use["lead"];
export const TOUCHES: Use["touched_by"] = [
  "hands",
  "water",
  "heat",
  "food",
  "feet",
  "children",
  "weather",
  "an unknown buyer",
];
const PLACES: Use["place"] = [
  "public room",
  "outdoors",
  "reached by ladder",
  "may freeze",
  "candles or a fire near it",
  "children in the house",
  "someone pregnant in the house",
  "turned on a lathe",
  "kitchen tools in use",
];
export const ANSWERS: { slug: Answered["answer"]; name: string }[] = [
  { slug: "not tested", name: "not tested" },
  { slug: "test planned", name: "a test is planned" },
  { slug: "none found", name: "tested, none found" },
  { slug: "found", name: "tested, found" },
  { slug: "never coated", name: "there never was a coat" },
];

/** The answer to a question that can hurt somebody, and where it is from. */
export function Question({ open, of, label }: { open: OpenJob; of: "lead" | "asbestos"; label: string }) {
  const asked = open.job.use[of];
  const set = (part: Partial<Answered>) =>
    open.edit((j) => ({ ...j, use: { ...j.use, [of]: { ...j.use[of], ...part } } }));
  const tested = asked.answer === "none found" || asked.answer === "found";
  return (
    <div className="flex flex-col gap-2">
      <Choice
        label={label}
        value={asked.answer}
        options={ANSWERS}
        onChange={(answer) => set({ answer: answer as Answered["answer"] })}
      />
      {tested && (
        <div className="grid grid-cols-[2fr_1fr] gap-2">
          <TextField
            label="Tested how, and where"
            value={asked.how}
            max={200}
            onChange={(how) => set({ how })}
          />
          <TextField label="When" value={asked.on} max={40} onChange={(on) => set({ on })} />
        </div>
      )}
    </div>
  );
}

/** What the piece must stand and where, what is known of the old coat, and what on it must stay bare. */
export function UsePanel({ open }: { open: OpenJob }) {
  const { use } = open.job;
  const set = (part: Partial<Use>) => open.edit((j) => ({ ...j, use: { ...j.use, ...part } }));
  return (
    <div className="flex flex-col gap-4">
      <Ticks
        legend="It must stand"
        options={TOUCHES}
        value={use.touched_by}
        onChange={(touched_by) => set({ touched_by })}
      />
      <Question open={open} of="lead" label="Lead in what was there before" />
      <Question open={open} of="asbestos" label="Asbestos in old texture or plaster" />
      <Ticks
        long
        legend="Where it is"
        options={PLACES}
        value={use.place}
        onChange={(place) => set({ place })}
      />
      <Room />
      {open.job.piece && <Bands open={open} />}
    </div>
  );
}

/** Glue faces, tenons, hinges, masked stripes: taken off the surface they lie on. */
function Bands({ open }: { open: OpenJob }) {
  const { area } = useArea();
  const [name, setName] = useState("");
  const [surface, setSurface] = useState(open.plan.surfaces[0]?.slug ?? "");
  const [length, setLength] = useState<Length>();
  const [width, setWidth] = useState<Length>();
  const bands = open.job.piece?.bands ?? [];
  const set = (next: typeof bands) => open.edit((j) => changePiece(j, (p) => ({ ...p, bands: next })));
  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>Kept bare on a surface</legend>
      <ul>
        {bands.map((band, i) => (
          <li
            key={band.name + band.surface}
            className="flex items-center justify-between gap-2 border-t border-line"
          >
            <span>
              {band.name}, {band.length.typed} × {band.width.typed}{" "}
              <span className="narrow text-sm text-soft">
                {area(open.plan.bands[i] ?? 0)} of{" "}
                {open.plan.surfaces.find((s) => s.slug === band.surface)?.name ?? band.surface}
              </span>
            </span>
            <button
              type="button"
              className="press"
              aria-label={`Take out ${band.name}`}
              onClick={() => set(bands.filter((_, k) => k !== i))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      {open.plan.problems
        .filter((p) => p.at.startsWith("/piece/bands"))
        .map((p) => (
          <Fault key={p.says} says={p.says} allowed={p.allowed} />
        ))}
      <div className="grid grid-cols-2 items-end gap-2">
        <TextField label="What" value={name} placeholder="hinges" onChange={setName} />
        <Choice
          label="on"
          value={surface}
          options={open.plan.surfaces.map((s) => ({ slug: s.slug, name: s.name }))}
          onChange={setSurface}
        />
        <LengthField label="Bare, length" value={length} onChange={setLength} />
        <LengthField label="Bare, width" value={width} onChange={setWidth} />
        <button
          type="button"
          className="press col-span-2"
          disabled={!name.trim() || !length || !width || !surface}
          onClick={() => {
            if (length && width) set([...bands, { surface, name: name.trim(), length, width, count: 1 }]);
            setName("");
          }}
        >
          Keep it bare
        </button>
      </div>
    </fieldset>
  );
}

/** The room the work is done in, for all jobs: drying follows it. */
function Room() {
  const settings = useSettings();
  const choose = useChoose();
  if (!settings.data) return null;
  const chosen = settings.data;
  const set = (change: Partial<typeof chosen>) => choose.mutate({ ...chosen, ...change });
  return (
    <div className="grid grid-cols-2 gap-2">
      <NumberField
        label="The room, warm"
        value={chosen.temperature_c}
        unit="°C"
        min={-10}
        max={50}
        onChange={(temperature_c) => set({ temperature_c })}
      />
      <NumberField
        label="and humid"
        value={Math.round(chosen.humidity * 100)}
        unit="%"
        min={1}
        max={100}
        onChange={(percent) => set({ humidity: percent / 100 })}
      />
    </div>
  );
}
