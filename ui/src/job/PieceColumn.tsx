import { answer, api, type Catalogue } from "../api/client";
import { PieceDrawing } from "../drawings/PieceDrawing";
import { Choice, LengthField, NumberField } from "../parts/fields";
import { say } from "../parts/say";
import { Why } from "../parts/Why";
import { changeLayer, changeZone } from "./change";
import type { OpenJob } from "./useJob";

/** The piece: drawn from its sizes, and the area that makes. */
export function PieceColumn({ open, catalogue }: { open: OpenJob; catalogue: Catalogue }) {
  const { job, plan } = open;
  const zone = job.zones[0];
  const planned = plan.zones[0];
  const layer = zone?.layers[0];
  if (!zone || !planned || !layer) return null;
  const kind = catalogue.pieces.find((k) => k.slug === job.piece?.kind);
  const paint = planned.layers[0]?.mixes[0]?.parts.find((p) => p.role === "paint");
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground);
  const fault = (at: string) => plan.problems.find((p) => p.at === at);

  return (
    <section aria-label="The piece" className="flex flex-col gap-4 border-ink p-4 lg:border-r-2">
      {job.piece && kind ? (
        <>
          <h2 className="wide text-base font-bold">{kind.name}</h2>
          {plan.drawing ? (
            <PieceDrawing
              drawing={plan.drawing}
              fill={paint?.hex ?? ground?.hex ?? "#ccc"}
              sizes={Object.fromEntries(Object.entries(job.piece.sizes).map(([size, l]) => [size, l.typed]))}
            />
          ) : (
            <p className="border-2 border-dashed border-line px-3 py-8 text-soft">
              {Object.keys(job.piece.sizes).length < kind.sizes.length
                ? `Type the ${kind.sizes.map((s) => s.name.toLowerCase()).join(", ")}, as you say them: 750, 75 cm, 29 1/2".`
                : "With these sizes it cannot be drawn."}
            </p>
          )}
          <div className="grid grid-cols-3 gap-2">
            {kind.sizes.map((size) => (
              <LengthField
                key={size.slug}
                label={size.name}
                value={job.piece?.sizes[size.slug]}
                fault={fault(`/piece/sizes/${size.slug}`)}
                onChange={(length) =>
                  open.edit((j) =>
                    j.piece
                      ? { ...j, piece: { ...j.piece, sizes: { ...j.piece.sizes, [size.slug]: length } } }
                      : j,
                  )
                }
              />
            ))}
          </div>
          <fieldset>
            <legend className="narrow text-sm font-semibold text-soft">Coated</legend>
            <div className="flex flex-wrap gap-x-5">
              {kind.surfaces.map((surface) => (
                <label key={surface.slug} className="flex min-h-11 items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-6 accent-dark"
                    checked={zone.surfaces.includes(surface.slug)}
                    onChange={(e) =>
                      open.edit((j) =>
                        changeZone(j, (z) => ({
                          ...z,
                          surfaces: kind.surfaces
                            .map((s) => s.slug)
                            .filter((s) => (s === surface.slug ? e.target.checked : z.surfaces.includes(s))),
                        })),
                      )
                    }
                  />
                  {surface.name}
                </label>
              ))}
            </div>
            {fault("/zones/0/surfaces") && (
              <p role="alert" className="text-sm font-semibold">
                {fault("/zones/0/surfaces")?.says}
              </p>
            )}
          </fieldset>
          <div>
            <span className="narrow block text-sm font-semibold text-soft">Area to coat</span>
            {planned.area ? (
              <Why figure={planned.area} name="Area to coat">
                <span className="numeral text-2xl">{say(planned.area.value)}</span>
                <span className="text-lg">m²</span>
              </Why>
            ) : (
              <span className="numeral text-2xl text-soft">–</span>
            )}
            {planned.left_out.map((left) => (
              <p key={left.surface} className="narrow mt-1 text-sm text-soft">
                Left out: {left.name.toLowerCase()}, {say(left.area_m2)} m², {left.why}.
              </p>
            ))}
          </div>
        </>
      ) : (
        <PotWithoutPiece open={open} />
      )}
      <Choice
        label="Ground"
        value={zone.ground}
        options={catalogue.grounds}
        onChange={(slug) => void setGround(open, slug)}
      />
      {ground && <p className="narrow -mt-3 text-sm text-soft">{ground.looks}</p>}
    </section>
  );
}

async function setGround(open: OpenJob, ground: string) {
  const layer = open.job.zones[0]?.layers[0];
  if (!layer) return;
  const start = await answer(
    api.POST("/api/layers", { body: { id: layer.id, recipe: layer.recipe, ground } }),
  );
  open.edit((job) =>
    changeLayer(
      changeZone(job, (zone) => ({ ...zone, ground })),
      (x) => ({ ...x, technique: start.technique, tool: start.tool }),
    ),
  );
}

function PotWithoutPiece({ open }: { open: OpenJob }) {
  const want = open.job.zones[0]?.layers[0]?.want;
  return (
    <>
      <h2 className="wide text-base font-bold">A pot, with no piece</h2>
      {want?.by === "total" && (
        <NumberField
          label="How much of the finished mix"
          value={want.ml}
          unit="ml"
          min={0.1}
          max={200000}
          onChange={(ml) =>
            open.edit((job) => changeLayer(job, (layer) => ({ ...layer, want: { by: "total", ml } })))
          }
        />
      )}
      <button
        type="button"
        className="press"
        onClick={() =>
          void answer(api.POST("/api/jobs/on-piece", { body: open.job })).then((job) => open.edit(() => job))
        }
      >
        Put it on a piece
      </button>
    </>
  );
}
