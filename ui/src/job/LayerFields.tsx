import type { Catalogue, Change, Layer } from "../api/client";
import { recipeOptions, techniqueOptions } from "../book/options";
import { RecipeChip } from "../drawings/Chip";
import { ChooserField } from "../parts/ChooserField";
import { Choice, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { percent } from "../parts/say";
import { TextField } from "../parts/TextField";
import { Tick } from "../parts/Ticks";
import { changeLayer } from "./change";
import { stackEdit } from "./edits";
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
  const { open, catalogue } = props;
  const { zone, layer, change } = useLayer(props);
  if (!layer) return null;
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
  const paint = recipe?.components.find((c) => c.material === "matt-paint");
  const primers = new Set(
    catalogue.recipes
      .filter((r) => r.family === "Sealers and primers")
      .flatMap((r) => r.components.map((c) => c.material)),
  );
  const paints = catalogue.materials.filter(
    (m) => m.role === "paint" && m.kind === "liquid" && !primers.has(m.slug),
  );

  const setRecipe = (slug: string) => {
    if (!zone) return;
    const swap = { do: "swap", layer: layer.id, recipe: slug, technique: "" } as const;
    void open.decide("another mix", stackEdit(zone.id, [swap]));
  };

  return (
    <div>
      <ChooserField
        label="Mix"
        of="recipe"
        value={layer.recipe}
        options={recipeOptions(catalogue)}
        picture={(o) => <RecipeChip recipe={o.slug} />}
        onChoose={setRecipe}
      />
      <p className="narrow mt-1 text-sm text-soft">{recipe?.looks}</p>
      {paint && paints.length > 1 && (
        <div className="mt-2">
          <ChooserField
            label={`${paint.name} in it`}
            of="material"
            value={layer.materials[paint.id] ?? paint.material}
            options={paints.map((m) => ({ slug: m.slug, name: m.name, hex: m.hex }))}
            picture={(o) => (
              <span className="block size-7 border border-line" style={{ background: o.hex }} />
            )}
            onChoose={(slug) => {
              const { [paint.id]: _, ...others } = layer.materials;
              change({ materials: slug === paint.material ? others : { ...others, [paint.id]: slug } });
            }}
          />
        </div>
      )}
    </div>
  );
}

type Colour = Layer["colours"][string];

/** In which state a colour was when it was entered. */
const ENTERED = [
  { slug: "dry", name: "dry, matt" },
  { slug: "sealed", name: "sealed" },
  { slug: "wet", name: "wet" },
];

/** The colour of the layer's paint, where it is one pot. */
export function ColourOfLayer(props: LayerFieldsProps) {
  const { layer, change } = useLayer(props);
  const recipe = props.catalogue.recipes.find((r) => r.slug === layer?.recipe);
  const paint = recipe?.components.find((c) => c.role === "paint");
  if (!layer || !paint || layer.pots.length > 0) return null;
  const colour = layer.colours[paint.id];
  const material = props.catalogue.materials.find((m) => m.slug === paint.material);
  const hex = colour?.hex ?? material?.hex ?? "#7f8f8a";
  const entered = colour?.entered ?? "dry";
  const set = (part: Partial<Colour>) =>
    change({
      colours: { ...layer.colours, [paint.id]: { name: colour?.name ?? "", hex, entered, ...part } },
    });
  return (
    <div className="flex flex-wrap gap-2 [&>div:first-of-type]:basis-36">
      <label className={LABEL}>
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
      <Choice
        label="As seen"
        value={entered}
        options={ENTERED}
        onChange={(state) => set({ entered: state as Colour["entered"] })}
      />
    </div>
  );
}

/** A coat of so many mm in section, ten times its size: crests stand twice the mean. */
function Crests({ mm }: { mm: number }) {
  const top = 22 - mm * 20;
  return (
    <svg aria-hidden viewBox="0 0 48 24" className="h-6 w-12">
      <path
        d={`M0 22L6 ${top}L12 ${22 - mm * 6}L19 ${top}L25 ${22 - mm * 8}L32 ${top}L39 ${22 - mm * 5}L44 ${top}L48 22Z`}
        fill="currentColor"
      />
      <path d="M0 22.5H48" stroke="currentColor" strokeWidth="1" />
    </svg>
  );
}

/** How often, on how much of it, and how thick it is laid: steps for a wet thumb. */
export function HowMuch(props: LayerFieldsProps) {
  const { layer, change } = useLayer(props);
  const technique = props.catalogue.techniques.find((t) => t.slug === layer?.technique);
  if (!layer) return null;
  return (
    <>
      <Stepper
        label="Coats"
        value={layer.coats}
        min={1}
        max={props.catalogue.caps.coats}
        onChange={(coats) => change({ coats })}
      />
      {layer.layout ? (
        <p className="narrow text-sm">Which share it covers follows from where it goes: its layout.</p>
      ) : (
        <Stepper
          label="Share of the surface covered"
          value={layer.touched}
          min={0.05}
          max={1}
          step={0.05}
          shown={percent(layer.touched)}
          onChange={(touched) => change({ touched: Math.round(touched * 100) / 100 })}
        />
      )}
      {technique?.per_mm && (
        <Stepper
          label="Mean thickness of a coat"
          value={layer.thickness_mm}
          min={0.05}
          max={10}
          step={layer.thickness_mm < 1 ? 0.05 : 0.25}
          shown={`${layer.thickness_mm} mm`}
          onChange={(mm) => change({ thickness_mm: Math.round(mm * 100) / 100 })}
        />
      )}
    </>
  );
}

/** How the layer goes on: technique, tool, coats, the share it touches, its thickness. */
export function OnSurface(props: LayerFieldsProps) {
  const { open, catalogue } = props;
  const { zone, layer, change } = useLayer(props);
  if (!zone || !layer) return null;
  const technique = catalogue.techniques.find((t) => t.slug === layer.technique);
  // What is done on what it lies on; before Lumso has said, all there is.
  const ways =
    open.plan.zones.find((z) => z.zone === zone?.id)?.layers.find((x) => x.layer === layer.id)?.ways ?? [];
  const known = new Map(catalogue.techniques.map((t) => [t.slug, t]));
  const fits = ways.flatMap((slug) => known.get(slug) ?? []);
  const options = fits.length ? fits : catalogue.techniques;
  const setTechnique = (technique: string) => {
    const set = { do: "set", layer: layer.id, technique } as const;
    void open.decide("another technique", stackEdit(zone.id, [set as Change]));
  };
  return (
    <div className="flex flex-col gap-3">
      <div>
        <div className="grid grid-cols-2 gap-3">
          <ChooserField
            label="Put on"
            of="technique"
            value={layer.technique}
            options={techniqueOptions(options)}
            onChoose={setTechnique}
          />
          <ChooserField
            label="Tool"
            of="tool"
            value={layer.tool}
            options={catalogue.tools}
            onChoose={(tool) => change({ tool })}
          />
        </div>
        {technique && <p className="narrow mt-1 text-sm text-soft">{technique.how}</p>}
        <details
          className="border-b border-line"
          open={Boolean(layer.second_tool || layer.damp_tool || layer.wrapped_tool)}
        >
          <summary className="min-h-11 py-2 text-sm font-semibold">More about the tools</summary>
          <div className="grid grid-cols-2 gap-x-3 pb-2">
            <Choice
              label="and then with"
              value={layer.second_tool}
              options={[{ slug: "", name: "nothing else" }, ...catalogue.tools]}
              onChange={(second_tool) => change({ second_tool })}
            />
            <div>
              <Tick
                label="taken up damp"
                value={layer.damp_tool}
                onChange={(damp_tool) => change({ damp_tool })}
              />
              <Tick
                label="kept wrapped between coats"
                value={layer.wrapped_tool}
                onChange={(wrapped_tool) => change({ wrapped_tool })}
              />
            </div>
          </div>
        </details>
      </div>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(10.5rem,1fr))] gap-3">
        <HowMuch {...props} />
      </div>
      {technique?.per_mm && (
        <fieldset>
          <legend className={LABEL}>How thick, in words</legend>
          <div className="grid grid-cols-4 [&>*+*]:-ml-0.5">
            {catalogue.thicknesses.map((word) => (
              <button
                key={word.slug}
                type="button"
                aria-pressed={layer.thickness_mm === word.mm}
                className={`press flex-col text-sm ${layer.thickness_mm === word.mm ? "press-strong" : ""}`}
                title={word.looks}
                onClick={() => change({ thickness_mm: word.mm })}
              >
                <Crests mm={word.mm} />
                {word.name}, {word.mm} mm
              </button>
            ))}
          </div>
        </fieldset>
      )}
      {technique && technique.touched_most < 1 && (
        <p className="narrow text-sm text-soft">
          Usually {percent(technique.touched_least)} to {percent(technique.touched_most)} of the surface.
        </p>
      )}
    </div>
  );
}
