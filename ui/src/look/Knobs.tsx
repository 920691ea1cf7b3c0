import type { Catalogue, Layer, Remedy } from "../api/client";
import type { StripFilm } from "../api/look";
import { useAdvice } from "../api/queries";
import { VERDICT } from "../finish/Sealers";
import { changeLayer } from "../job/change";
import { stackEdit } from "../job/edits";
import { ColourOfLayer, HowMuch } from "../job/LayerFields";
import type { OpenJob } from "../job/useJob";
import { Choice, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { percent } from "../parts/say";

interface KnobsProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
  films: StripFilm[];
}

/** What changes a look, each a step that the picture follows. */
export function Knobs({ open, catalogue, zone: index, layer: at, onLayer, films }: KnobsProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const advice = useAdvice(open.job, zone?.id ?? "");
  if (!zone || !layer) return <p className="text-soft">No layer yet: take a finish from the library.</p>;
  const planned = open.plan.zones.find((z) => z.zone === zone.id)?.layers.find((x) => x.layer === layer.id);
  const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
  const dial = recipe?.components.find((c) => c.id === recipe.dial);
  const film = films.find((f) => f.layer === layer.id);
  // What was just set counts before Lumso has answered: a second press goes on from it.
  const given = dial && layer.amounts[dial.id];
  const share = given?.by === "volume-share" ? given.share : (planned?.dial ?? null);
  const kept = layer.kept ?? film?.kept ?? 1;
  const change = (part: Partial<Layer>) =>
    open.edit((job) => changeLayer(job, index, at, (x) => ({ ...x, ...part })));
  const take = (remedy: Remedy | null | undefined) => {
    // Of an answer that is still of what was before nothing is taken: it would be done twice.
    if (remedy && !advice.isPlaceholderData)
      void open.decide(remedy.says.toLowerCase(), stackEdit(zone.id, remedy.changes));
  };
  const sealers = advice.data?.sealers ?? [];
  const age = advice.data?.age;
  const sanded = layer.sandings.filter((s) => s.purpose !== "blend" && s.purpose !== "burnish");

  return (
    <div className="flex flex-col gap-4">
      <Choice
        label="Layer"
        value={String(at)}
        options={zone.layers
          .map((l, i) => ({
            slug: String(i),
            name: `${i + 1}. ${catalogue.recipes.find((r) => r.slug === l.recipe)?.name ?? l.recipe}`,
          }))
          .reverse()}
        onChange={(i) => onLayer(Number(i))}
      />
      <ColourOfLayer open={open} catalogue={catalogue} zone={index} layer={at} />
      <div className="grid grid-cols-2 gap-3">
        {dial && share !== null && recipe?.measured_by === "volume" && (
          <Stepper
            label={`${dial.name} in it`}
            value={share}
            min={0.05}
            max={0.9}
            step={0.05}
            shown={percent(share)}
            onChange={(next) =>
              change({
                amounts: {
                  ...layer.amounts,
                  [dial.id]: { by: "volume-share", share: Math.round(next * 100) / 100 },
                },
              })
            }
          />
        )}
        <HowMuch open={open} catalogue={catalogue} zone={index} layer={at} />
        {film?.wiped && (
          <Stepper
            label="Left after wiping"
            value={kept}
            min={0.05}
            max={1}
            step={0.05}
            shown={percent(kept)}
            onChange={(kept) => change({ kept: Math.round(kept * 100) / 100 })}
          />
        )}
      </div>
      {!film?.clear && (
        <fieldset>
          <legend className={LABEL}>Sanded back, once it is dry</legend>
          <div className="grid grid-cols-2 sm:grid-cols-4 [&>*+*]:-ml-0.5">
            {catalogue.sanded_back.map((way) => {
              const on =
                JSON.stringify(sanded.map((s) => s.purpose)) ===
                JSON.stringify(way.sandings.map((s) => s.purpose));
              return (
                <button
                  key={way.name}
                  type="button"
                  aria-pressed={on}
                  className={`press text-sm ${on ? "press-strong" : ""}`}
                  onClick={() => change({ sandings: way.sandings })}
                >
                  {way.name}
                  {way.sandings[0] && ` P${way.sandings[0].grit}`}
                </button>
              );
            })}
          </div>
        </fieldset>
      )}
      <div className="grid gap-3 border-t-2 border-ink pt-3 sm:grid-cols-2">
        <Choice
          label="Sealed with"
          value={sealers.find((s) => s.on)?.recipe ?? ""}
          options={sealers.map((s) => ({
            slug: s.recipe,
            name: `${s.recipe ? s.name : "nothing"}, ${VERDICT[s.verdict]}`,
          }))}
          onChange={(slug) => take(sealers.find((s) => s.recipe === slug)?.remedy)}
        />
        <div>
          <span className={LABEL}>Age in its hollows</span>
          <button
            type="button"
            aria-pressed={age?.on ?? false}
            className={`press w-full ${age?.on ? "press-strong" : ""}`}
            onClick={() => take(age?.remedy)}
          >
            {age?.on ? "dark wax, on" : "put dark wax on"}
          </button>
        </div>
      </div>
    </div>
  );
}
