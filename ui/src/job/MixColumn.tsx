import type { Catalogue } from "../api/client";
import { ShareRule } from "../drawings/ShareRule";
import { Choice } from "../parts/fields";
import { Fault, Remark, TakeCare } from "../parts/notices";
import { changeLayer } from "./change";
import { ColourOfLayer, MixChoice, OnSurface } from "./LayerFields";
import { MarginChoice } from "./MarginChoice";
import { PotsEditor } from "./PotsEditor";
import type { OpenJob } from "./useJob";

/** What goes on: the mix, its water, how it is put on, and how often. */
export function MixColumn({
  open,
  catalogue,
  zone: index,
  layer: at,
  onLayer,
}: {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const planned = open.plan.zones.find((z) => z.zone === zone?.id)?.layers.find((x) => x.layer === layer?.id);
  if (!zone || !layer) return null;
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
  const dial = recipe?.components.find((c) => c.id === recipe.dial);
  const given = dial && layer.amounts[dial.id];
  const share = given?.by === "volume-share" ? given.share : (planned?.dial ?? null);
  const paint = recipe?.components.find((c) => c.role === "paint");
  const change = (part: Partial<typeof layer>) =>
    open.edit((job) => changeLayer(job, index, at, (x) => ({ ...x, ...part })));
  const problems = open.plan.problems.filter((p) => p.at.startsWith(`/zones/${index}/layers/${at}`));

  return (
    <section aria-label="The mix" className="flex flex-col gap-4 border-ink p-4 md:border-r-2">
      {zone.layers.length > 1 && (
        <Choice
          label="Layer"
          value={layer.id}
          options={zone.layers.map((x, i) => ({
            slug: x.id,
            name: `${i + 1}. ${catalogue.recipes.find((r) => r.slug === x.recipe)?.name ?? x.recipe}`,
          }))}
          onChange={(id) => onLayer(zone.layers.findIndex((x) => x.id === id))}
        />
      )}
      <MixChoice open={open} catalogue={catalogue} zone={index} layer={at} />
      <ColourOfLayer open={open} catalogue={catalogue} zone={index} layer={at} />
      {recipe && recipe.schools.length > 0 && (
        <div>
          <Choice
            label="Way of doing it"
            value={layer.school}
            options={[{ slug: "", name: "the book’s" }, ...recipe.schools]}
            onChange={(school) => change({ school, amounts: {} })}
          />
          <p className="narrow mt-1 text-sm text-soft">
            {recipe.schools.find((x) => x.slug === layer.school)?.reason ?? recipe.default_school}
          </p>
        </div>
      )}
      {dial && share !== null && (
        <ShareRule
          name={dial.name}
          share={share}
          limits={(planned?.limits ?? []).filter((l) => l.component === dial.id)}
          onChange={(next) =>
            change({ amounts: { ...layer.amounts, [dial.id]: { by: "volume-share", share: next } } })
          }
        />
      )}
      <OnSurface open={open} catalogue={catalogue} zone={index} layer={at} />
      <MarginChoice margin={layer.margin} oneIn={layer.short_one_in} onChange={change} />
      {paint && (
        <PotsEditor
          layer={layer}
          paint={paint}
          most={catalogue.caps.pots}
          onChange={(pots) => change({ pots })}
        />
      )}
      {recipe && <TakeCare texts={recipe.cautions} />}
      {problems.map((p) => (
        <Fault key={p.at + p.says} says={p.says} allowed={p.allowed} />
      ))}
      {(planned?.findings ?? [])
        .filter((f) => !f.at.includes("/amounts/"))
        .map((f) => (
          <Remark key={f.says} says={f.says} reason={f.reason} />
        ))}
    </section>
  );
}
