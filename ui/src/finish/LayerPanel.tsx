import { DropdownMenu } from "radix-ui";
import { Link } from "react-router";
import type { Catalogue, Layer } from "../api/client";
import { changeLayer, changeZone, copyOf, moveLayer } from "../job/change";
import { stackEdit } from "../job/edits";
import { ColourOfLayer, MixChoice, OnSurface } from "../job/LayerFields";
import type { OpenJob } from "../job/useJob";
import { Choice } from "../parts/fields";
import { amount, lasts, newId } from "../parts/say";
import { Tick } from "../parts/Ticks";
import { Sandings } from "./Sandings";
import { WAITS } from "./waits";

const DRIES = [
  { slug: "air", name: "by itself" },
  { slug: "hair dryer", name: "with a hair dryer" },
  { slug: "heat gun", name: "with a heat gun" },
  { slug: "warm room", name: "in a warmed room" },
];

const STROKES = [
  { slug: "down", name: "down" },
  { slug: "across", name: "across" },
  { slug: "along each part", name: "along each part" },
];

interface LayerPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}

/** A wait in hours as it is chosen, and what there is to choose from: it too, where it is none of the usual ones. */
function waitsWith(hours: number | null): [string, { slug: string; name: string }[]] {
  const slug = hours === null ? "" : String(hours);
  const usual = WAITS.some((w) => w.slug === slug);
  return [slug, usual ? WAITS : [...WAITS, { slug, name: lasts((hours ?? 0) * 60) }]];
}

/** The layer that is picked: what it is, how it goes on, what happens to it afterwards. */
export function LayerPanel({ open, catalogue, zone: index, layer: at, onLayer }: LayerPanelProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const planned = open.plan.zones.find((z) => z.zone === zone?.id)?.layers.find((x) => x.layer === layer?.id);
  if (!zone || !layer)
    return <p className="text-soft">No layer yet: take a finish from the library, or add a layer.</p>;
  const technique = catalogue.techniques.find((t) => t.slug === layer.technique);
  const change = (part: Partial<typeof layer>) =>
    open.edit((job) => changeLayer(job, index, at, (x) => ({ ...x, ...part })));
  const pots = planned?.pots ?? [];
  const said = amount(
    pots.reduce((sum, pot) => sum + pot.ml, 0),
    "ml",
  );
  const count = pots.reduce((sum, pot) => sum + pot.times, 0);
  const [wait, waits] = waitsWith(layer.wait_h);
  const [between, betweens] = waitsWith(layer.coat_wait_h);
  const others = open.job.zones.filter((_, i) => i !== index);

  function duplicate() {
    const again = (layers: Layer[]) => layers.flatMap((x) => (x.id === layer?.id ? [x, copyOf(x)] : [x]));
    open.edit((job) => changeZone(job, index, (z) => ({ ...z, layers: again(z.layers) })));
    onLayer(at + 1);
  }

  function remove() {
    if (!zone || !layer) return;
    void open.decide("a layer taken out", stackEdit(zone.id, [{ do: "remove", layer: layer.id }]));
    onLayer(Math.max(0, at - 1));
  }

  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end justify-between gap-x-4">
        <h2 className="wide text-base font-bold">
          Layer {at + 1} of {zone.layers.length}
        </h2>
        {pots.length > 0 && (
          <Link to={`/jobs/${open.id}/mix`} className="flex min-h-11 items-baseline gap-2 underline">
            <span>
              Needs about <span className="numeral text-xl">{said.value}</span> {said.unit}
              {count > 1 && ` in ${count} pots`}
            </span>
            see the mix
          </Link>
        )}
      </div>
      <MixChoice open={open} catalogue={catalogue} zone={index} layer={at} />
      <ColourOfLayer open={open} catalogue={catalogue} zone={index} layer={at} />
      <OnSurface open={open} catalogue={catalogue} zone={index} layer={at} />
      {planned?.findings.map((f) => (
        <p key={f.at + f.says} className="narrow border-l-4 border-ink pl-2 text-sm">
          <strong>{f.says}</strong> {f.reason}
        </p>
      ))}
      {technique && <HowItGoes technique={technique} />}
      <div className="grid grid-cols-2 gap-3 border-t-2 border-ink pt-3">
        <div>
          <Choice
            label="Wait before the next layer"
            value={wait}
            options={waits}
            onChange={(w) => change({ wait_h: w === "" ? null : Number(w) })}
          />
          <p className="narrow mt-1 text-sm text-soft">
            {planned ? lasts(planned.wait_h === null ? null : planned.wait_h * 60) : "…"}
            {planned?.wait_why && <strong>: {planned.wait_why}</strong>}. {planned?.waits}
          </p>
        </div>
        <div className="flex flex-col gap-3">
          {layer.coats > 1 && (
            <Choice
              label="Between its coats"
              value={between}
              options={betweens}
              onChange={(w) => change({ coat_wait_h: w === "" ? null : Number(w) })}
            />
          )}
          <Choice
            label="Dries"
            value={layer.dries_by}
            options={DRIES}
            onChange={(d) => change({ dries_by: d as Layer["dries_by"] })}
          />
        </div>
        {technique && technique.lays_m2_per_h > 0 && (
          <>
            <Choice
              label="Strokes run"
              value={layer.stroke}
              options={STROKES}
              onChange={(s) => change({ stroke: s as Layer["stroke"] })}
            />
            <Tick
              label="two of us: one lays on, one works"
              value={layer.second_pair}
              onChange={(second_pair) => change({ second_pair })}
            />
          </>
        )}
        {at > 0 && (
          <div className="col-span-2">
            <Tick
              label="dragged into the layer beneath while that is damp"
              value={layer.wet_into_wet}
              onChange={(wet_into_wet) => change({ wet_into_wet })}
            />
          </div>
        )}
      </div>
      <Sandings layer={layer} catalogue={catalogue} onChange={(sandings) => change({ sandings })} />
      <div className="flex flex-wrap border-t-2 border-ink pt-3 [&>*+*]:-ml-0.5">
        <button
          type="button"
          className="press"
          disabled={at === zone.layers.length - 1}
          onClick={() => {
            moveLayer(open, zone, at, at + 1);
            onLayer(at + 1);
          }}
        >
          Up
        </button>
        <button
          type="button"
          className="press"
          disabled={at === 0}
          onClick={() => {
            moveLayer(open, zone, at, at - 1);
            onLayer(at - 1);
          }}
        >
          Down
        </button>
        <button
          type="button"
          className="press"
          disabled={zone.layers.length >= catalogue.caps.layers}
          onClick={duplicate}
        >
          Duplicate
        </button>
        <button type="button" className="press" onClick={remove}>
          Remove
        </button>
        {others.length > 0 && (
          <DropdownMenu.Root modal={false}>
            <DropdownMenu.Trigger className="press">Copy stack to…</DropdownMenu.Trigger>
            {/* Where it is pressed: what stands around it goes on to be there for whoever reads by ear. */}
            <div className="contents">
              <DropdownMenu.Content
                className="z-20 border-2 border-ink bg-enamel"
                align="end"
                collisionPadding={12}
              >
                {[
                  ...others.map((z) => ({ name: z.name, to: [z.id] })),
                  { name: "all other zones", to: others.map((z) => z.id) },
                ].map((target) => (
                  <DropdownMenu.Item
                    key={target.name}
                    className="flex min-h-11 cursor-pointer items-center px-4 font-semibold data-highlighted:bg-dark data-highlighted:text-enamel"
                    onSelect={() =>
                      void open.decide("a stack copied", {
                        edit: "copy",
                        seed: newId(),
                        zone: zone.id,
                        to: target.to,
                      })
                    }
                  >
                    {target.name}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Content>
            </div>
          </DropdownMenu.Root>
        )}
      </div>
    </div>
  );
}

function Line({ name, text }: { name: string; text: string }) {
  return (
    <div className="border-t border-line py-1.5">
      <dt className="font-semibold">{name}</dt>
      <dd>{text}</dd>
    </div>
  );
}

/** How a technique goes on, when it is right, and what mends it; nothing where nothing is known. */
function HowItGoes({ technique }: { technique: Catalogue["techniques"][number] }) {
  const { direction, part_dry: dry, right_when: right } = technique;
  if (!direction && !right) return null;
  return (
    <details className="border-t border-line">
      <summary className="min-h-11 py-2 font-semibold">How, and when it is right</summary>
      <dl className="narrow text-sm">
        {direction && <Line name="Strokes" text={direction} />}
        {dry && (
          <Line
            name={`Part dry, ${dry.opens_min} to ${dry.closes_min} min`}
            text={`${dry.what} ${dry.check}`}
          />
        )}
        {right && <Line name="Right when" text={right} />}
        {technique.faults.map((f) => (
          <Line key={f.sign} name={`If: ${f.sign}`} text={f.rescue} />
        ))}
      </dl>
    </details>
  );
}
