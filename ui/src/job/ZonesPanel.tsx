import type { Catalogue, Zone } from "../api/client";
import { groundOptions } from "../book/options";
import { ChooserField } from "../parts/ChooserField";
import { Choice } from "../parts/fields";
import { Alert } from "../parts/notices";
import { newId, say } from "../parts/say";
import { TextField } from "../parts/TextField";
import { Tick, Ticks } from "../parts/Ticks";
import { useArea } from "../parts/useArea";
import { changePiece, changeZone, moveSurface } from "./change";
import { TOUCHES } from "./UsePanel";
import type { OpenJob } from "./useJob";
import { ZoneList } from "./ZoneList";

interface ZonesPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  onZone: (index: number) => void;
}

const FACTS: Zone["facts"] = [
  "raised old pattern",
  "textured old coating",
  "filler or glue spots",
  "wallpaper or its paste",
  "kitchen grease",
  "silicone polish",
  "resinous knots",
  "holes to fill",
  "holes to drill",
];
const SHEENS = ["unknown", "dead matt", "matt", "eggshell", "satin", "gloss"].map((s) => ({
  slug: s,
  name: s,
}));
const CONDITIONS = ["sound", "worn", "flaking"].map((s) => ({ slug: s, name: s }));

/** The zones: what gets one treatment, what it is on, and which surface belongs where. */
export function ZonesPanel({ open, catalogue, zone: index, onZone }: ZonesPanelProps) {
  const { job, plan } = open;
  const zone = job.zones[index];
  const { area } = useArea();
  if (!zone) return null;
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground);
  const relief = catalogue.reliefs.find((r) => r.slug === zone.relief);
  const change = (part: Partial<Zone>) => open.edit((j) => changeZone(j, index, (z) => ({ ...z, ...part })));
  const problem = plan.problems.find((p) => p.at === `/zones/${index}/surfaces`);
  const places = [...job.zones.map((z) => ({ slug: z.id, name: z.name })), { slug: "", name: "left bare" }];

  const split = (surface: string) => {
    const seed = newId();
    const from = job.zones.find((z) => z.surfaces.includes(surface)) ?? zone;
    const edit = { edit: "split", seed, zone: from.id, surface } as const;
    void open.decide("a zone split off", edit).then((done) => done && onZone(job.zones.length));
  };

  const merge = () => {
    void open.decide("zones merged", { edit: "merge", seed: newId(), zone: zone.id });
    onZone(0);
  };

  return (
    <div className="flex flex-col gap-3">
      {job.zones.length > 1 && <ZoneList open={open} zone={index} onZone={onZone} />}
      <div className="grid grid-cols-2 gap-2">
        <div className="col-span-2">
          <TextField
            label="Name of the zone"
            value={zone.name}
            required
            onChange={(name) => change({ name })}
          />
        </div>
        <div className="col-span-2">
          <ChooserField
            label="Ground"
            of="ground"
            value={zone.ground}
            options={groundOptions(catalogue)}
            picture={(o) => (
              <span className="block size-8 border border-line" style={{ background: o.hex }} />
            )}
            onChoose={(ground) =>
              void open.decide("another ground", { edit: "ground", seed: newId(), zone: zone.id, ground })
            }
          />
          {ground && <p className="narrow text-sm text-soft">{ground.looks}</p>}
        </div>
        <div className="col-span-2">
          <Choice
            label="Relief"
            value={zone.relief}
            options={catalogue.reliefs.map((r) => ({ slug: r.slug, name: `${r.name}, × ${say(r.factor)}` }))}
            onChange={(slug) => change({ relief: slug })}
          />
          {relief && (
            <div className="mt-1 grid grid-cols-[7rem_1fr] items-center gap-3">
              <svg
                role="img"
                aria-label={`Section of ${relief.name}`}
                viewBox="-1 -9 62 24"
                className="w-full bg-enamel"
              >
                <path
                  d={`M${relief.profile.map((p) => `${p.x} ${-p.y}`).join("L")}V15H0Z`}
                  fill={ground?.hex ?? "var(--color-steel)"}
                  stroke="var(--color-ink)"
                  strokeWidth="1.2"
                />
              </svg>
              <p className="narrow text-sm text-soft">{relief.looks}</p>
            </div>
          )}
        </div>
        <Choice
          label="Sheen now"
          value={zone.sheen}
          options={SHEENS}
          onChange={(s) => change({ sheen: s as Zone["sheen"] })}
        />
        <Choice
          label="Condition"
          value={zone.condition}
          options={CONDITIONS}
          onChange={(s) => change({ condition: s as Zone["condition"] })}
        />
        <div className="col-span-2">
          <details open={zone.facts.length > 0} className="border-y border-line">
            <summary className="min-h-11 py-2.5 font-semibold">
              To be seen on the ground{zone.facts.length > 0 && `: ${zone.facts.length}`}
            </summary>
            <Ticks
              long
              legend="What is there"
              options={FACTS}
              value={zone.facts}
              onChange={(facts) => change({ facts })}
            />
          </details>
        </div>
        {job.zones.length > 1 && (
          <div className="col-span-2">
            <Tick
              label="stands something else than the rest"
              value={zone.touched_by !== null}
              onChange={(on) => change({ touched_by: on ? [...job.use.touched_by] : null })}
            />
            {zone.touched_by && (
              <Ticks
                legend={`${zone.name} must stand`}
                options={TOUCHES}
                value={zone.touched_by}
                onChange={(touched_by) => change({ touched_by })}
              />
            )}
          </div>
        )}
      </div>
      {problem && (
        <Alert>
          {problem.says} <span className="font-normal">Allowed: {problem.allowed}.</span>
        </Alert>
      )}
      {job.piece && (
        <ul aria-label="Surfaces">
          {plan.surfaces.map((surface) => (
            <li key={surface.slug} className="border-t border-line py-1.5">
              <div className="flex items-baseline justify-between gap-2">
                <span className="font-semibold">{surface.name}</span>
                <span className="numeral">{area(surface.area_m2)}</span>
              </div>
              <div className="grid grid-cols-[1fr_auto] items-end gap-2">
                <Choice
                  label={`${surface.name}: zone`}
                  value={surface.zone}
                  options={places}
                  onChange={(id) => open.edit((j) => moveSurface(j, surface.slug, id))}
                />
                <button
                  type="button"
                  className="press text-sm"
                  aria-label={`Make ${surface.name} a separate zone`}
                  disabled={
                    job.zones.length >= catalogue.caps.zones ||
                    !surface.zone ||
                    (job.zones.find((z) => z.id === surface.zone)?.surfaces.length ?? 0) < 2
                  }
                  onClick={() => split(surface.slug)}
                >
                  Make a separate zone
                </button>
              </div>
              {!surface.zone && (
                <TextField
                  label="why"
                  value={job.piece?.reasons[surface.slug] ?? surface.why}
                  onChange={(why) =>
                    open.edit((j) =>
                      changePiece(j, (p) => ({ ...p, reasons: { ...p.reasons, [surface.slug]: why } })),
                    )
                  }
                />
              )}
            </li>
          ))}
        </ul>
      )}
      {job.zones.length > 1 && (
        <button type="button" className="press" onClick={merge}>
          Merge {zone.name} into {job.zones.find((_, i) => i !== index)?.name}
        </button>
      )}
    </div>
  );
}
