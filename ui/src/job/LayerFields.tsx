import { answer, api, type Catalogue, type Layer } from "../api/client";
import { Choice, Stepper } from "../parts/fields";
import { percent } from "../parts/say";
import { TextField } from "../parts/TextField";
import { changeLayer } from "./change";
import type { OpenJob } from "./useJob";

interface LayerFieldsProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

/** The layer that is meant, and how to change it. */
function useLayer({ open, zone: index, layer: at }: LayerFieldsProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const change = (part: Partial<Layer>) =>
    open.edit((job) => changeLayer(job, index, at, (x) => ({ ...x, ...part })));
  return { zone, layer, change };
}

/** Which mix the layer is. Another one brings the technique and tool that are usual for it. */
export function MixChoice(props: LayerFieldsProps) {
  const { open, catalogue, zone: index, layer: at } = props;
  const { layer } = useLayer(props);
  if (!layer) return null;
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);

  function setRecipe(slug: string) {
    void open.editVia(async (job) => {
      const zone = job.zones[index];
      const now = zone?.layers[at];
      if (!zone || !now) return job;
      const body = { id: now.id, recipe: slug, ground: zone.ground };
      const start = await answer(api.POST("/api/layers", { body }));
      const { technique, tool, touched } = start;
      return changeLayer(job, index, at, (x) => ({
        ...x,
        recipe: slug,
        technique,
        tool,
        touched,
        amounts: {},
        school: "",
      }));
    });
  }

  return (
    <div>
      <Choice label="Mix" value={layer.recipe} options={catalogue.recipes} onChange={setRecipe} />
      <p className="narrow mt-1 text-sm text-soft">{recipe?.looks}</p>
    </div>
  );
}

/** The colour of the layer's paint, where it is one pot. */
export function ColourOfLayer(props: LayerFieldsProps) {
  const { layer, change } = useLayer(props);
  const recipe = props.catalogue.recipes.find((r) => r.slug === layer?.recipe);
  const paint = recipe?.components.find((c) => c.role === "paint");
  if (!layer || !paint || layer.pots.length > 0) return null;
  const colour = layer.colours[paint.id];
  const material = props.catalogue.materials.find((m) => m.slug === paint.material);
  const hex = colour?.hex ?? material?.hex ?? "#7f8f8a";
  const set = (part: { name?: string; hex?: string }) =>
    change({ colours: { ...layer.colours, [paint.id]: { name: colour?.name ?? "", hex, ...part } } });
  return (
    <div className="grid grid-cols-[auto_1fr] gap-2">
      <label className="narrow text-sm font-semibold text-soft">
        <span className="block">Colour</span>
        <input
          type="color"
          className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
          value={hex}
          onChange={(e) => set({ hex: e.target.value })}
        />
      </label>
      <TextField
        label="What you call it"
        value={colour?.name ?? ""}
        max={80}
        placeholder="name of the paint"
        onChange={(name) => set({ name })}
      />
    </div>
  );
}

/** How the layer goes on: technique, tool, coats, the share it touches, its thickness. */
export function OnSurface(props: LayerFieldsProps) {
  const { catalogue, layer: at } = props;
  const { zone, layer, change } = useLayer(props);
  if (!zone || !layer) return null;
  const technique = catalogue.techniques.find((t) => t.slug === layer.technique);
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground);
  const fits = catalogue.techniques.filter(
    (t) =>
      at > 0 ||
      !t.surfaces.length ||
      !ground ||
      t.surfaces.includes(ground.surface) ||
      t.slug === layer.technique,
  );
  // The ways that are usual for this mix come first.
  const usual = (slug: string) => (recipe?.techniques.includes(slug) ? 0 : 1);
  const options = [...fits].sort((a, b) => usual(a.slug) - usual(b.slug));
  return (
    <div className="flex flex-col gap-3">
      <div>
        <div className="grid grid-cols-2 gap-3">
          <Choice
            label="Put on"
            value={layer.technique}
            options={options}
            onChange={(slug) => {
              const next = catalogue.techniques.find((t) => t.slug === slug);
              change({ technique: slug, tool: next?.tools[0] ?? layer.tool, touched: next?.touched ?? 1 });
            }}
          />
          <Choice
            label="Tool"
            value={layer.tool}
            options={catalogue.tools}
            onChange={(tool) => change({ tool })}
          />
        </div>
        {technique && <p className="narrow mt-1 text-sm text-soft">{technique.how}</p>}
      </div>
      <div className="grid grid-cols-2 gap-3">
        <Stepper label="Coats" value={layer.coats} min={1} max={12} onChange={(coats) => change({ coats })} />
        <Stepper
          label="Touches"
          value={layer.touched}
          min={0.05}
          max={1}
          step={0.05}
          shown={percent(layer.touched)}
          onChange={(touched) => change({ touched: Math.round(touched * 100) / 100 })}
        />
        {technique?.per_mm && (
          <Stepper
            label="Mean thickness of a coat"
            value={layer.thickness_mm}
            min={0.25}
            max={10}
            step={0.25}
            shown={`${layer.thickness_mm} mm`}
            onChange={(thickness_mm) => change({ thickness_mm })}
          />
        )}
      </div>
      {technique && technique.touched_most < 1 && (
        <p className="narrow text-sm text-soft">
          Usually {percent(technique.touched_least)} to {percent(technique.touched_most)} of the surface.
        </p>
      )}
    </div>
  );
}
