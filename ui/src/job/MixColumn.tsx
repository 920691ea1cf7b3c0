import { answer, api, type Catalogue } from "../api/client";
import { ShareRule } from "../drawings/ShareRule";
import { Choice, Stepper } from "../parts/fields";
import { percent } from "../parts/say";
import { TextField } from "../parts/TextField";
import { changeLayer } from "./change";
import { PotsEditor } from "./PotsEditor";
import type { OpenJob } from "./useJob";

/** What goes on: the mix, its water, how it is put on, and how often. */
export function MixColumn({
  open,
  catalogue,
  zone: index,
}: {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
}) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[0];
  const planned = open.plan.zones[index]?.layers[0];
  if (!zone || !layer || !planned) return null;
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
  const technique = catalogue.techniques.find((t) => t.slug === layer.technique);
  const dial = recipe?.components.find((c) => c.id === recipe.dial);
  const schoolAmounts = recipe?.schools.find((x) => x.slug === layer.school)?.amounts ?? {};
  const amount = dial && (layer.amounts[dial.id] ?? schoolAmounts[dial.id] ?? dial.amount);
  const now = planned.mixes[0]?.parts.find((p) => p.component === dial?.id)?.share;
  const share = amount?.by === "volume-share" ? amount.share : (now ?? null);
  const paint = recipe?.components.find((c) => c.role === "paint");
  const colour = paint && layer.colours[paint.id];
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground);
  const change = (part: Partial<typeof layer>) =>
    open.edit((job) => changeLayer(job, index, (x) => ({ ...x, ...part })));
  const problems = open.plan.problems.filter((p) => p.at.startsWith(`/zones/${index}/layers/0`));

  async function setRecipe(slug: string) {
    if (!zone || !layer) return;
    const start = await answer(
      api.POST("/api/layers", { body: { id: layer.id, recipe: slug, ground: zone.ground } }),
    );
    change({ recipe: slug, technique: start.technique, tool: start.tool, amounts: {}, school: "" });
  }

  return (
    <section
      aria-label="The mix"
      className="flex flex-col gap-4 border-ink p-4 max-lg:border-t-2 lg:border-r-2"
    >
      <div>
        <Choice
          label="Mix"
          value={layer.recipe}
          options={catalogue.recipes}
          onChange={(slug) => void setRecipe(slug)}
        />
        <p className="narrow mt-1 text-sm text-soft">{recipe?.looks}</p>
      </div>
      {paint && layer.pots.length === 0 && (
        <div className="grid grid-cols-[auto_1fr] gap-2">
          <label className="narrow text-sm font-semibold text-soft">
            <span className="block">Colour</span>
            <input
              type="color"
              className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
              value={colour?.hex ?? "#7f8f8a"}
              onChange={(e) =>
                change({
                  colours: {
                    ...layer.colours,
                    [paint.id]: { name: colour?.name ?? "", hex: e.target.value },
                  },
                })
              }
            />
          </label>
          <TextField
            label="What you call it"
            value={colour?.name ?? ""}
            max={80}
            placeholder="name of the paint"
            onChange={(name) =>
              change({ colours: { ...layer.colours, [paint.id]: { name, hex: colour?.hex ?? "#7f8f8a" } } })
            }
          />
        </div>
      )}
      {recipe && recipe.schools.length > 0 && (
        <div>
          <Choice
            label="School"
            value={layer.school}
            options={[{ slug: "", name: "as the book has it" }, ...recipe.schools]}
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
          limits={planned.limits.filter((l) => l.component === dial.id)}
          onChange={(next) =>
            change({ amounts: { ...layer.amounts, [dial.id]: { by: "volume-share", share: next } } })
          }
        />
      )}
      <div>
        <div className="grid grid-cols-2 gap-3">
          <Choice
            label="Put on"
            value={layer.technique}
            options={catalogue.techniques.filter(
              (t) =>
                !t.surfaces.length ||
                !ground ||
                t.surfaces.includes(ground.surface) ||
                t.slug === layer.technique,
            )}
            onChange={(slug) => {
              const next = catalogue.techniques.find((t) => t.slug === slug);
              change({ technique: slug, tool: next?.tools[0] ?? layer.tool });
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
          label="Margin"
          value={layer.margin}
          min={0}
          max={1}
          step={0.05}
          shown={percent(layer.margin)}
          onChange={(margin) => change({ margin: Math.round(margin * 100) / 100 })}
        />
      </div>
      {technique?.per_mm && (
        <Stepper
          label="Mean thickness of a coat"
          value={layer.thickness_mm}
          min={0.5}
          max={10}
          step={0.5}
          shown={`${layer.thickness_mm} mm`}
          onChange={(thickness_mm) => change({ thickness_mm })}
        />
      )}
      {paint && <PotsEditor layer={layer} paint={paint} onChange={(pots) => change({ pots })} />}
      {recipe && recipe.cautions.length > 0 && (
        <ul aria-label="Take care" className="border-2 border-ink bg-enamel p-2 text-sm">
          {recipe.cautions.map((caution) => (
            <li key={caution} className="py-0.5">
              <strong>Take care.</strong> {caution}
            </li>
          ))}
        </ul>
      )}
      {problems.map((p) => (
        <p key={p.at + p.says} role="alert" className="border-l-4 border-ink pl-2 font-semibold">
          {p.says} <span className="font-normal">Allowed: {p.allowed}.</span>
        </p>
      ))}
      {planned.findings
        .filter((f) => !f.at.includes("/amounts/"))
        .map((f) => (
          <p key={f.says} className="narrow border-l-4 border-soft pl-2 text-sm">
            <strong>{f.says}</strong> {f.reason}
          </p>
        ))}
    </section>
  );
}
