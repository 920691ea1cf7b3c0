import type { Catalogue, Layer, Sanding } from "../api/client";
import { Choice, Stepper } from "../parts/fields";

const PURPOSES = [
  { slug: "soften", name: "soften it" },
  { slug: "bite", name: "bite into it" },
  { slug: "reveal", name: "go down to what is beneath" },
  { slug: "level", name: "knock peaks back" },
  { slug: "scuff", name: "scuff it" },
  { slug: "between clear coats", name: "key between clear coats" },
  { slug: "blend", name: "blend soft edges" },
  { slug: "burnish", name: "burnish it" },
  { slug: "polish", name: "rub it out" },
];
const GRITS = [60, 80, 100, 120, 150, 180, 220, 240, 320, 400, 600, 800];
const named = (list: readonly string[]) => list.map((s) => ({ slug: s, name: s }));
const ABRASIVES = named(["paper", "synthetic pad", "bronze wool", "steel wool"]);
const BY = named(["hand", "machine"]);
const WHERE = [
  { slug: "all", name: "all of it" },
  { slug: "edges", name: "edges" },
  { slug: "spots", name: "spots" },
];

/** Where in the list the grit stands, or the nearest to it. */
function nearest(grits: number[], grit: number): number {
  const away = grits.map((g) => Math.abs(g - grit));
  return away.indexOf(Math.min(...away));
}

interface SandingsProps {
  layer: Layer;
  catalogue: Catalogue;
  onChange: (sandings: Sanding[]) => void;
}

/** What a layer is sanded and rubbed with once it is dry, in order. */
export function Sandings({ layer, catalogue, onChange }: SandingsProps) {
  const set = (at: number, part: Partial<Sanding>) =>
    onChange(layer.sandings.map((s, i) => (i === at ? { ...s, ...part } : s)));
  const usual = (purpose: string) => catalogue.abrasives.find((a) => a.purpose === purpose);
  return (
    <section aria-label="Sanded when dry" className="flex flex-col gap-3 border-t-2 border-ink pt-3">
      {layer.sandings.map((sand, i) => {
        const wool = sand.abrasive.endsWith("wool");
        const grits = wool
          ? catalogue.wools.map((w) => w.grit)
          : [...new Set([...GRITS, sand.grit])].sort((a, b) => a - b);
        const advised = usual(sand.purpose);
        const at = nearest(grits, sand.grit);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: what is done twice alike has no other name
          <div key={i} className="grid grid-cols-2 gap-2 border-b border-line pb-3">
            <Choice
              label={i ? "Then sanded, to" : "Sanded when dry, to"}
              value={sand.purpose}
              options={PURPOSES}
              onChange={(purpose) =>
                set(i, {
                  purpose: purpose as Sanding["purpose"],
                  grit: wool ? sand.grit : (usual(purpose)?.coarsest ?? sand.grit),
                })
              }
            />
            <Choice
              label="With"
              value={sand.abrasive}
              options={ABRASIVES}
              onChange={(a) =>
                set(i, {
                  abrasive: a as Sanding["abrasive"],
                  grit: a.endsWith("wool") ? (catalogue.wools.at(-1)?.grit ?? sand.grit) : sand.grit,
                })
              }
            />
            <Stepper
              label={wool ? "Grade" : "Grit"}
              value={at}
              min={0}
              max={grits.length - 1}
              shown={wool ? (catalogue.wools[at]?.grade ?? "") : `P${sand.grit}`}
              onChange={(k) => set(i, { grit: grits[k] ?? sand.grit })}
            />
            <div className="grid grid-cols-2 gap-2">
              <Choice
                label="Where"
                value={sand.where}
                options={WHERE}
                onChange={(where) => set(i, { where: where as Sanding["where"] })}
              />
              <Choice
                label="By"
                value={sand.by}
                options={BY}
                onChange={(by) => set(i, { by: by as Sanding["by"] })}
              />
            </div>
            <p className="narrow col-span-2 text-sm text-soft">
              {advised && !wool && `P${advised.coarsest} or finer. ${advised.why}`}
              {advised && wool && advised.why}
            </p>
            <button
              type="button"
              className="press col-span-2 justify-self-start text-sm"
              onClick={() => onChange(layer.sandings.filter((_, k) => k !== i))}
            >
              Leave this sanding out
            </button>
          </div>
        );
      })}
      {layer.sandings.length < 6 && (
        <button
          type="button"
          className="press justify-self-start self-start"
          onClick={() =>
            onChange([
              ...layer.sandings,
              { grit: 220, purpose: "soften", abrasive: "paper", by: "hand", where: "all" },
            ])
          }
        >
          {layer.sandings.length ? "Sand it again" : "Sand it when dry"}
        </button>
      )}
    </section>
  );
}
