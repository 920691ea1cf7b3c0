import type { Catalogue, PotWant, Recipe } from "../api/client";
import { Choice, NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";

interface ScaleProps {
  recipe: Recipe;
  catalogue: Catalogue;
  want: PotWant;
  onChange: (want: PotWant) => void;
}

const ENDS = [
  { by: "total", name: "so much mixed" },
  { by: "part", name: "what is left of a part" },
  { by: "vessel", name: "a vessel to fill" },
] as const;

/** How much to mix, from whichever end is known. */
export function Scale({ recipe, catalogue, want, onChange }: ScaleProps) {
  const component = want.by === "part" ? want.component : (recipe.components[0]?.id ?? "");
  function end(by: PotWant["by"]) {
    if (by === "total") onChange({ by, ml: 250 });
    if (by === "vessel") onChange({ by, ml: catalogue.vessels[1]?.capacity_ml ?? 370 });
    if (by === "part")
      onChange({ by, component, unit: recipe.measured_by === "weight" ? "g" : "ml", quantity: 100 });
  }
  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>How much, from</legend>
      <div className="flex flex-wrap">
        {ENDS.map((e, i) => (
          <button
            key={e.by}
            type="button"
            aria-pressed={want.by === e.by}
            className={`press grow text-sm ${i ? "-ml-0.5" : ""}`}
            onClick={() => end(e.by)}
          >
            {e.name}
          </button>
        ))}
      </div>
      <div className="mt-2">
        {want.by === "total" && (
          <NumberField
            label="Finished mix"
            value={want.ml}
            unit="ml"
            min={0.1}
            max={200000}
            onChange={(ml) => onChange({ by: "total", ml })}
          />
        )}
        {want.by === "vessel" && (
          <Choice
            label="Vessel, filled with room to stir"
            value={String(want.ml)}
            options={catalogue.vessels.map((v) => ({
              slug: String(v.capacity_ml),
              name: `${v.name}, ${v.capacity_ml} ml`,
            }))}
            onChange={(ml) => onChange({ by: "vessel", ml: Number(ml) })}
          />
        )}
        {want.by === "part" && (
          <div className="grid grid-cols-[1fr_7rem_5rem] items-end gap-2">
            <Choice
              label="I have"
              value={want.component}
              options={recipe.components.map((c) => ({ slug: c.id, name: c.name }))}
              onChange={(next) => onChange({ ...want, component: next })}
            />
            <NumberField
              label="left"
              value={want.quantity}
              unit=""
              min={0.1}
              max={400000}
              onChange={(quantity) => onChange({ ...want, quantity })}
            />
            <Choice
              label="in"
              value={want.unit}
              options={[
                { slug: "ml", name: "ml" },
                { slug: "g", name: "g" },
              ]}
              onChange={(unit) => onChange({ ...want, unit: unit === "g" ? "g" : "ml" })}
            />
          </div>
        )}
      </div>
    </fieldset>
  );
}
