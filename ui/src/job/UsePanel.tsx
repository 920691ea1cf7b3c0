import { useState } from "react";
import type { Job, Length } from "../api/client";
import { useChoose, useSettings } from "../api/queries";
import { Choice, LengthField, NumberField } from "../parts/fields";
import { Fault, LABEL } from "../parts/notices";
import { say } from "../parts/say";
import { TextField } from "../parts/TextField";
import { changePiece } from "./change";
import type { OpenJob } from "./useJob";

type Touch = Job["use"]["touched_by"][number];
const TOUCHES: Touch[] = [
  "hands",
  "water",
  "heat",
  "food",
  "feet",
  "children",
  "weather",
  "an unknown buyer",
];
const AGES = ["none", "of known age", "of unknown age"].map((s) => ({ slug: s, name: s }));

/** What the piece must stand, what lies under the new finish, and what on it must stay bare. */
export function UsePanel({ open }: { open: OpenJob }) {
  const { use } = open.job;
  return (
    <div className="flex flex-col gap-3">
      <fieldset>
        <legend className={LABEL}>It must stand</legend>
        <div className="grid grid-cols-2">
          {TOUCHES.map((touch) => (
            <label key={touch} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-6 accent-dark"
                checked={use.touched_by.includes(touch)}
                onChange={(e) =>
                  open.edit((j) => ({
                    ...j,
                    use: {
                      ...j.use,
                      touched_by: TOUCHES.filter((t) =>
                        t === touch ? e.target.checked : j.use.touched_by.includes(t),
                      ),
                    },
                  }))
                }
              />
              {touch}
            </label>
          ))}
        </div>
      </fieldset>
      <Choice
        label="Old finish on it"
        value={use.old_finish}
        options={AGES}
        onChange={(age) =>
          open.edit((j) => ({ ...j, use: { ...j.use, old_finish: age as Job["use"]["old_finish"] } }))
        }
      />
      <Room open={open} />
      {open.job.piece && <Bands open={open} />}
    </div>
  );
}

/** Glue faces, tenons, hinges, masked stripes: taken off the surface they lie on. */
function Bands({ open }: { open: OpenJob }) {
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
                {say(open.plan.bands[i] ?? 0)} m² of{" "}
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
function Room({ open }: { open: OpenJob }) {
  const settings = useSettings();
  const choose = useChoose();
  if (!settings.data) return null;
  const chosen = settings.data;
  const set = (change: Partial<typeof chosen>) =>
    choose.mutate({ ...chosen, ...change }, { onSuccess: () => open.session.replan() });
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
