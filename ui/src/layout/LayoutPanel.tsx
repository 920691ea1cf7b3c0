import { useState } from "react";
import type { Catalogue, FaceLayout, Layer, Layout } from "../api/client";
import { templateAt, useLayout } from "../api/layouts";
import { changeLayer } from "../job/change";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { Choice, NumberField } from "../parts/fields";
import { Fault, LABEL } from "../parts/notices";
import { percent, say } from "../parts/say";
import { Tick } from "../parts/Ticks";
import { ElementList } from "./ElementList";
import { FaceDrawing } from "./FaceDrawing";

const KINDS = [
  { slug: "", name: "all over, or as it is put on" },
  { slug: "stripes", name: "in stripes" },
  { slug: "checks", name: "in checks, both ways" },
  { slug: "border", name: "as a border along the edge" },
  { slug: "repeats", name: "as a stencil, over and over in a row" },
];
const RUNS = [
  { slug: "down", name: "down it" },
  { slug: "across", name: "across it" },
];
const ENDS = [
  { slug: "with a stripe", name: "with a stripe at both edges" },
  { slug: "with half a gap", name: "with half a gap at both edges" },
  { slug: "cut", name: "cut by the edges, as wide as asked" },
];
const GIVES = [
  { slug: "gaps", name: "the gaps" },
  { slug: "stripes", name: "the stripes" },
  { slug: "all", name: "both alike" },
  { slug: "", name: "nothing: what is over goes to the ends" },
];
const ANCHORS = [
  { slug: "centred on a stripe", name: "a stripe in the middle" },
  { slug: "centred on a gap", name: "a gap in the middle" },
  { slug: "from an edge", name: "from the edge on the left, or the top" },
];

const begun = (kind: Layout["kind"]): Layout => ({
  kind,
  stripes: [
    kind === "border" ? { width_mm: 20, gap_mm: 40, name: "" } : { width_mm: 50, gap_mm: 50, name: "" },
  ],
  runs: kind === "repeats" ? "across" : "down",
  anchor: "centred on a stripe",
  mirrored: false,
  even: true,
  ends: "with a stripe",
  gives: "gaps",
  surfaces: [],
  row_mm: 100,
  inset_mm: 0,
  covers: 0.5,
  tapes_mm: [6, 12, 19, 25, 38, 50],
  tape_off_mm: 0.2,
  tick_mm: 1,
});

interface LayoutPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

/** Where a layer goes: a pattern that comes out even, drawn to scale, taped, and at its true size. */
export function LayoutPanel({ open, catalogue, zone: index, layer: at }: LayoutPanelProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const found = useLayout(open.job, zone?.id ?? "", layer?.id ?? "", Boolean(layer?.layout));
  if (!zone || !layer) return <p className="text-soft">No layer yet.</p>;
  const { layout } = layer;
  const usual = catalogue.techniques.find((t) => t.slug === layer.technique)?.touched ?? 1;
  const keep = (made: Layout | null) =>
    open.edit((job) =>
      changeLayer(job, index, at, (x: Layer) => ({
        ...x,
        layout: made,
        ...(made ? {} : { touched: usual }),
      })),
    );
  const change = (part: Partial<Layout>) => layout && keep({ ...layout, ...part });
  const reply = layout ? found.data : undefined;
  return (
    <div className="flex flex-col gap-4">
      <Choice
        label={`Layer ${at + 1} goes`}
        value={layout?.kind ?? ""}
        options={KINDS}
        onChange={(kind) =>
          keep(kind ? { ...(layout ?? begun(kind as Layout["kind"])), kind: kind as Layout["kind"] } : null)
        }
      />
      {layout && <Fields layout={layout} onChange={change} />}
      {layout && reply && reply.on.length > 1 && (
        <Choice
          label="On"
          value={layout.surfaces[0] ?? ""}
          options={[{ slug: "", name: "every face it fits on" }, ...reply.on]}
          onChange={(surface) => change({ surfaces: surface ? [surface] : [] })}
        />
      )}
      {reply && reply.left_out.length > 0 && (
        <p className="narrow text-sm">Does not fit on {reply.left_out.join(", ")}: left out.</p>
      )}
      {found.error && <Failure error={found.error} onRetry={() => void found.refetch()} />}
      {reply?.says && <Fault says={reply.says} allowed={reply.allowed ?? ""} />}
      {reply && reply.faces.length > 0 && (
        <>
          <p role="status" data-stale={found.isPlaceholderData || undefined}>
            Paints <span className="numeral text-xl">{percent(reply.share)}</span> of the zone
            {reply.metres > 0 && (
              <>
                ; about <span className="numeral text-xl">{say(reply.metres)} m</span> of tape
              </>
            )}
            .
          </p>
          {reply.to_tick && layout && (
            <button
              type="button"
              className="press justify-self-start text-left"
              onClick={() => reply.to_tick && keep(reply.to_tick.layout as Layout)}
            >
              Make every width whole {say(layout.tick_mm)} mm: {say(reply.to_tick.over_mm)} mm stay over, half
              at each end
            </button>
          )}
          {reply.faces.map((face, n) => (
            <Face
              key={face.surface + face.name}
              face={face}
              n={n}
              open={open}
              zone={zone.id}
              layer={layer.id}
            />
          ))}
        </>
      )}
    </div>
  );
}

function Fields({ layout, onChange }: { layout: Layout; onChange: (part: Partial<Layout>) => void }) {
  const border = layout.kind === "border";
  const stripes = border ? layout.stripes.slice(0, 1) : layout.stripes;
  const set = (n: number, part: Partial<Layout["stripes"][number]>) =>
    onChange({ stripes: layout.stripes.map((s, k) => (k === n ? { ...s, ...part } : s)) });
  return (
    <div className="grid gap-3">
      {stripes.map((stripe, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stripe is its place in the repeat
        <div key={n} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <NumberField
            label={border ? "The border is" : `${layout.kind === "repeats" ? "Motif" : "Stripe"} ${n + 1} is`}
            value={round(stripe.width_mm)}
            unit="mm"
            min={2}
            max={2000}
            onChange={(width_mm) => set(n, { width_mm })}
          />
          {/* There and back, the last gap is left out: the stripes before it come again. */}
          {layout.mirrored && n > 0 && n === stripes.length - 1 ? (
            <span />
          ) : (
            <NumberField
              label={border ? "in from the edge" : "then a gap of"}
              value={round(stripe.gap_mm)}
              unit="mm"
              min={2}
              max={2000}
              onChange={(gap_mm) => set(n, { gap_mm })}
            />
          )}
          {!border && layout.stripes.length > 1 && (
            <button
              type="button"
              className="press"
              aria-label={`Take out stripe ${n + 1}`}
              onClick={() => onChange({ stripes: layout.stripes.filter((_, k) => k !== n) })}
            >
              ×
            </button>
          )}
        </div>
      ))}
      {!border && layout.stripes.length < 8 && (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() => onChange({ stripes: [...layout.stripes, { width_mm: 10, gap_mm: 20, name: "" }] })}
        >
          {layout.kind === "repeats" ? "Another motif in the repeat" : "Another stripe in the repeat"}
        </button>
      )}
      {!border && (
        <div className="grid grid-cols-2 gap-3">
          {layout.kind !== "checks" && (
            <Choice
              label={layout.kind === "repeats" ? "The row runs" : "Stripes run"}
              value={layout.runs}
              options={RUNS}
              onChange={(runs) => onChange({ runs: runs as Layout["runs"] })}
            />
          )}
          <Choice
            label="It ends"
            value={layout.ends}
            options={ENDS}
            onChange={(ends) => onChange({ ends: ends as Layout["ends"] })}
          />
          {layout.ends !== "cut" ? (
            <Choice
              label="To come out even, what gives"
              value={layout.even ? layout.gives : ""}
              options={GIVES}
              onChange={(gives) =>
                onChange(gives ? { gives: gives as Layout["gives"], even: true } : { even: false })
              }
            />
          ) : (
            <Choice
              label="Set"
              value={layout.anchor}
              options={ANCHORS}
              onChange={(anchor) => onChange({ anchor: anchor as Layout["anchor"] })}
            />
          )}
          {layout.kind === "repeats" && (
            <>
              <NumberField
                label="The row is high"
                value={layout.row_mm}
                unit="mm"
                min={5}
                max={2000}
                onChange={(row_mm) => onChange({ row_mm })}
              />
              <NumberField
                label="in from the edge"
                value={layout.inset_mm}
                unit="mm"
                min={0}
                max={3000}
                onChange={(inset_mm) => onChange({ inset_mm })}
              />
              <NumberField
                label="Of its box a motif paints"
                value={Math.round(layout.covers * 100)}
                unit="%"
                min={1}
                max={100}
                onChange={(share) => onChange({ covers: share / 100 })}
              />
            </>
          )}
          <NumberField
            label="Tick of the rule"
            value={layout.tick_mm}
            unit="mm"
            min={0.1}
            max={10}
            onChange={(tick_mm) => onChange({ tick_mm })}
          />
          {layout.stripes.length > 1 && (
            <div className="col-span-2">
              <Tick
                label="there and back: the same from both edges"
                value={layout.mirrored}
                onChange={(mirrored) => onChange({ mirrored })}
              />
            </div>
          )}
        </div>
      )}
    </div>
  );
}

const round = (mm: number) => Math.round(mm * 100) / 100;

interface FaceProps {
  face: FaceLayout;
  n: number;
  open: OpenJob;
  zone: string;
  layer: string;
}

/** One face: drawn, listed, and to print at its true size. */
function Face({ face, n, open, zone, layer }: FaceProps) {
  const [across, setAcross] = useState(100);
  const [down, setDown] = useState(101.6);
  const { taping, laid } = face;
  const fits = [laid.down, laid.across].filter((f) => f !== null && f !== undefined);
  const file = {
    job: open.id,
    zone,
    layer,
    face: n,
    across: across === 100 ? undefined : across,
    down: down === 101.6 ? undefined : down,
  };
  const saved = open.saveState === "saved";
  return (
    <section aria-label={face.name} className="border-t-2 border-ink pt-3">
      <h3 className="font-bold">
        {face.name}
        {face.like > 1 && ` × ${face.like}`}, {say(face.width_mm)} × {say(face.height_mm)} mm
      </h3>
      {fits.map((fit) => (
        <p key={fit.says + fit.length_mm} className="narrow text-sm">
          {fit.says}
        </p>
      ))}
      <FaceDrawing face={face} />
      <p className="narrow mt-2 text-sm">
        No edge is more than {say(taping.worst_mm)} mm from where it should be: half a tick
        {taping.rolls > 0 &&
          `, and what the tape is off. ${taping.rolls} ${taping.rolls === 1 ? "roll" : "rolls"}: ${taping.by_width
            .map((t) => `${say(t.metres)} m of ${say(t.width_mm)} mm`)
            .join(", ")}`}
        .
      </p>
      <ol className="narrow mt-2 list-decimal pl-5 text-sm">
        {taping.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <ElementList face={face} />
      <details className="mt-2">
        <summary className="inline-flex min-h-11 items-center font-semibold underline">
          At its true size, to print or cut
        </summary>
        {saved ? (
          <div className="flex flex-wrap gap-2">
            <a className="press" href={templateAt("pdf", { ...file, what: "face" })} download>
              Sheets to tape together
            </a>
            {fits.length > 0 && (
              <a className="press" href={templateAt("pdf", { ...file, what: "stick" })} download>
                Story stick
              </a>
            )}
            <a className="press" href={templateAt("svg", { ...file, what: "face" })} download>
              SVG
            </a>
            <a className="press" href={templateAt("dxf", { ...file, what: "face" })} download>
              DXF
            </a>
          </div>
        ) : (
          <p className="narrow text-sm">When what you changed is saved.</p>
        )}
        <p className="narrow mt-2 text-sm">
          Print without scaling, and measure both rules on the first sheet. Are they not true, say what they
          measure: the sheets are made again so that they come out true.
        </p>
        <div className="mt-1 grid max-w-md grid-cols-2 gap-3">
          <NumberField
            label="The 100 mm rule measures"
            value={across}
            unit="mm"
            min={95}
            max={105}
            onChange={setAcross}
          />
          <NumberField
            label="The 4 in rule measures"
            value={down}
            unit="mm"
            min={96.52}
            max={106.68}
            onChange={setDown}
          />
        </div>
      </details>
      <p className={`${LABEL} mt-1`}>All places are measured from the left, or the top: the one datum.</p>
    </section>
  );
}
