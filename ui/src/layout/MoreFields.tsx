import type { Layout } from "../api/client";
import { Choice } from "../parts/fields";
import { MmField } from "../parts/MmField";
import { LABEL } from "../parts/notices";
import { Tick } from "../parts/Ticks";
import type { ChangeLayout } from "./LayoutFields";

/** Widths that tape is sold in, as a rule. */
const TAPES = [3, 6, 9, 12, 19, 25, 30, 38, 50];
const FRONTS = [
  { slug: "each by itself", name: "each by itself" },
  { slug: "over the gaps", name: "runs on, the gaps take part of it" },
  { slug: "without the gaps", name: "runs on as if there were no gaps" },
];

interface MoreFieldsProps {
  layout: Layout;
  /** The size of the first face, which diagonals are begun from. */
  face: { width_mm: number; height_mm: number } | undefined;
  onChange: ChangeLayout;
}

/** What is asked for less often: tapes and rule, what stays free, knobs, fronts, out of square. */
export function MoreFields({ layout, face, onChange }: MoreFieldsProps) {
  const stripes = layout.kind === "stripes";
  const taped = layout.kind !== "repeats" && layout.kind !== "lettering";
  const cut = layout.ends === "cut" && (stripes || layout.kind === "checks");
  const widths = [...new Set([...TAPES, ...layout.tapes_mm])].sort((a, b) => a - b);
  const long = (layout.runs === "across" ? face?.height_mm : face?.width_mm) ?? 1000;
  const diagonal = face ? Math.round(Math.hypot(face.width_mm, face.height_mm) * 10) / 10 : 1000;
  return (
    <details>
      <summary className="inline-flex min-h-11 items-center font-semibold underline">
        Tapes, rule, knobs, fronts, out of square
      </summary>
      <div className="mt-2 grid gap-4">
        {taped && (
          <fieldset className="min-w-0">
            <legend className={LABEL}>Tapes there are, mm</legend>
            <div className="grid grid-cols-3 gap-x-3">
              {widths.map((mm) => (
                <Tick
                  key={mm}
                  label={String(mm)}
                  value={layout.tapes_mm.includes(mm)}
                  onChange={(on) =>
                    onChange({
                      tapes_mm: widths
                        .filter((w) => (w === mm ? on : layout.tapes_mm.includes(w)))
                        .slice(0, 12),
                    })
                  }
                />
              ))}
            </div>
          </fieldset>
        )}
        <div className="grid grid-cols-2 gap-3">
          {taped && (
            <MmField
              label="A tape may be off by"
              value={layout.tape_off_mm}
              min={0}
              max={2}
              onChange={(tape_off_mm) => onChange({ tape_off_mm })}
            />
          )}
          <MmField
            label="Tick of the rule"
            value={layout.tick_mm}
            min={0.1}
            max={10}
            onChange={(tick_mm) => onChange({ tick_mm })}
          />
          <MmField
            label="The pen marks wide"
            value={layout.pen_mm}
            min={0}
            max={3}
            onChange={(pen_mm) => onChange({ pen_mm })}
          />
          {layout.kind !== "border" && (
            <MmField
              label="Free at both ends"
              value={layout.remainder_mm}
              min={0}
              max={3000}
              onChange={(remainder_mm) => onChange({ remainder_mm })}
            />
          )}
          {cut && (
            <>
              <MmField
                label="Nothing narrower than"
                value={layout.narrowest_mm}
                min={2}
                max={100}
                onChange={(narrowest_mm) => onChange({ narrowest_mm })}
              />
              {layout.centre_mm !== null && layout.centre_mm !== undefined ? (
                <MmField
                  label="Its middle, from the datum"
                  value={layout.centre_mm}
                  min={0}
                  max={5000}
                  onChange={(centre_mm) => onChange({ centre_mm })}
                />
              ) : (
                <button
                  type="button"
                  className="press self-end"
                  onClick={() => onChange({ centre_mm: Math.round(long / 2) })}
                >
                  Centre it on a handle
                </button>
              )}
            </>
          )}
          {stripes && (
            <Choice
              label="Over several fronts it is"
              value={layout.fronts}
              options={FRONTS}
              onChange={(fronts) => onChange({ fronts: fronts as Layout["fronts"] })}
            />
          )}
          {stripes && layout.fronts === "over the gaps" && (
            <MmField
              label="Between two fronts"
              value={layout.front_gap_mm}
              min={0}
              max={500}
              onChange={(front_gap_mm) => onChange({ front_gap_mm })}
            />
          )}
        </div>
        <Knobs layout={layout} face={face} onChange={onChange} />
        {layout.diagonals_mm.length === 2 ? (
          <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
            {["One diagonal", "the other"].map((label, n) => (
              <MmField
                key={label}
                label={label}
                value={layout.diagonals_mm[n] ?? diagonal}
                min={10}
                max={5000}
                onChange={(mm) =>
                  onChange({ diagonals_mm: layout.diagonals_mm.map((d, k) => (k === n ? mm : d)) })
                }
              />
            ))}
            <button
              type="button"
              className="press"
              aria-label="Forget the diagonals"
              onClick={() => onChange({ diagonals_mm: [] })}
            >
              ×
            </button>
          </div>
        ) : (
          <button
            type="button"
            className="press justify-self-start"
            onClick={() => onChange({ diagonals_mm: [diagonal, diagonal] })}
          >
            Is it square? Measure its diagonals
          </button>
        )}
      </div>
    </details>
  );
}

/** Knobs and keyholes that stay free of it. */
function Knobs({ layout, face, onChange }: MoreFieldsProps) {
  const { spared } = layout;
  const set = (n: number, part: Partial<(typeof spared)[number]>) =>
    onChange({ spared: spared.map((s, k) => (k === n ? { ...s, ...part } : s)) });
  const fields = [
    { name: "x_mm", label: "from the left" },
    { name: "y_mm", label: "from the top" },
    { name: "across_mm", label: "across" },
  ] as const;
  return (
    <div className="grid gap-2">
      {spared.map((one, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a knob is its place in the list
        <div key={n} className="grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-2">
          {fields.map(({ name, label }) => (
            <MmField
              key={name}
              label={name === "x_mm" ? `Knob ${n + 1}, ${label}` : label}
              value={one[name]}
              min={name === "across_mm" ? 1 : 0}
              max={name === "across_mm" ? 500 : 5000}
              onChange={(mm) => set(n, { [name]: mm })}
            />
          ))}
          <button
            type="button"
            className="press"
            aria-label={`Forget knob ${n + 1}`}
            onClick={() => onChange({ spared: spared.filter((_, k) => k !== n) })}
          >
            ×
          </button>
        </div>
      ))}
      {spared.length < 12 && (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() =>
            onChange({
              spared: [
                ...spared,
                {
                  x_mm: Math.round((face?.width_mm ?? 400) / 2),
                  y_mm: Math.round((face?.height_mm ?? 200) / 2),
                  across_mm: 40,
                },
              ],
            })
          }
        >
          {spared.length ? "Another knob or keyhole stays free" : "A knob or keyhole stays free"}
        </button>
      )}
    </div>
  );
}
