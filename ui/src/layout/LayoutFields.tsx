import type { Layout } from "../api/client";
import { Choice, NumberField } from "../parts/fields";
import { MmField } from "../parts/MmField";
import { TextField } from "../parts/TextField";
import { Tick } from "../parts/Ticks";

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
const WHOLE = [
  { slug: "whole", name: "whole ones, edge to edge" },
  { slug: "asked", name: "as wide as asked, the rest free" },
];
const ANCHORS = [
  { slug: "centred on a stripe", name: "a stripe in the middle" },
  { slug: "centred on a gap", name: "a gap in the middle" },
  { slug: "from an edge", name: "from the edge on the left, or the top" },
];
const CORNERS = [
  { slug: "painted", name: "painted" },
  { slug: "left out", name: "left out" },
];

type Stripe = Layout["stripes"][number];
export type ChangeLayout = (part: Partial<Layout>) => void;

const round = (mm: number) => Math.round(mm * 100) / 100;

interface FieldsProps {
  layout: Layout;
  onChange: ChangeLayout;
}

/** What a kind of layout asks: its widths, how it ends, what gives. */
export function LayoutFields({ layout, onChange }: FieldsProps) {
  switch (layout.kind) {
    case "chequers":
    case "diamonds":
      return <Boxes layout={layout} onChange={onChange} />;
    case "border":
      return <Border layout={layout} onChange={onChange} />;
    case "lettering":
      return <Lettering layout={layout} onChange={onChange} />;
    default:
      return <Repeats layout={layout} onChange={onChange} />;
  }
}

function Width({ label, value, onChange }: { label: string; value: number; onChange: (mm: number) => void }) {
  return <MmField label={label} value={round(value)} min={2} max={2000} onChange={onChange} />;
}

function Boxes({ layout, onChange }: FieldsProps) {
  const first = layout.stripes[0];
  const other = layout.down[0] ?? first;
  if (!first || !other) return null;
  const sized = (mm: number): Stripe => ({ width_mm: mm, gap_mm: mm, name: "" });
  return (
    <div className="grid grid-cols-2 gap-3">
      <Width
        label="Each is wide"
        value={first.width_mm}
        onChange={(mm) => onChange({ stripes: [sized(mm)], down: layout.down.length ? layout.down : [] })}
      />
      <Width label="and high" value={other.width_mm} onChange={(mm) => onChange({ down: [sized(mm)] })} />
      <Choice
        label="They are"
        value={layout.even ? "whole" : "asked"}
        options={WHOLE}
        onChange={(how) => onChange({ even: how === "whole" })}
      />
    </div>
  );
}

function Border({ layout, onChange }: FieldsProps) {
  const band = layout.stripes[0];
  if (!band) return null;
  const set = (part: Partial<Stripe>) => onChange({ stripes: [{ ...band, ...part }] });
  return (
    <div className="grid grid-cols-2 gap-3">
      <Width label="The border is" value={band.width_mm} onChange={(width_mm) => set({ width_mm })} />
      <Width label="in from the edge" value={band.gap_mm} onChange={(gap_mm) => set({ gap_mm })} />
      <Corners layout={layout} onChange={onChange} />
    </div>
  );
}

function Corners({ layout, onChange }: FieldsProps) {
  return (
    <Choice
      label="Its corners are"
      value={layout.corners}
      options={CORNERS}
      onChange={(corners) => onChange({ corners: corners as Layout["corners"] })}
    />
  );
}

function Lettering({ layout, onChange }: FieldsProps) {
  const gap = layout.stripes[0]?.gap_mm ?? 10;
  return (
    <div className="grid grid-cols-2 gap-3">
      <div className="col-span-2">
        <TextField
          label="The words"
          value={layout.words}
          onChange={(words) => onChange({ words })}
          max={60}
        />
      </div>
      <MmField
        label="Letters are high"
        value={layout.row_mm}
        min={5}
        max={2000}
        onChange={(row_mm) => onChange({ row_mm })}
      />
      <MmField
        label="down from the top"
        value={layout.inset_mm}
        min={0}
        max={3000}
        onChange={(inset_mm) => onChange({ inset_mm })}
      />
      <MmField
        label="Between two letters"
        value={round(gap)}
        min={1}
        max={500}
        onChange={(gap_mm) => onChange({ stripes: [{ width_mm: 50, gap_mm, name: "" }] })}
      />
      <Choice
        label="To fill the line, what gives"
        value={layout.even ? layout.gives : ""}
        options={[
          { slug: "", name: "nothing: in the middle as it is" },
          { slug: "gaps", name: "the spaces" },
          { slug: "stripes", name: "the letters" },
          { slug: "all", name: "both alike" },
        ]}
        onChange={(gives) =>
          onChange(gives ? { gives: gives as Layout["gives"], even: true } : { even: false })
        }
      />
      <Covers layout={layout} label="Of its box a letter paints" onChange={onChange} />
    </div>
  );
}

function Covers({ layout, label, onChange }: FieldsProps & { label: string }) {
  return (
    <NumberField
      label={label}
      value={Math.round(layout.covers * 100)}
      unit="%"
      min={1}
      max={100}
      onChange={(share) => onChange({ covers: share / 100 })}
    />
  );
}

interface StripesProps {
  noun: string;
  stripes: Stripe[];
  /** There and back, the last gap is left out: the stripes before it come again. */
  mirrored?: boolean;
  onChange: (stripes: Stripe[]) => void;
}

/** One repeat: each stripe with the gap after it. */
function Stripes({ noun, stripes, mirrored = false, onChange }: StripesProps) {
  const set = (n: number, part: Partial<Stripe>) =>
    onChange(stripes.map((s, k) => (k === n ? { ...s, ...part } : s)));
  return (
    <>
      {stripes.map((stripe, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stripe is its place in the repeat
        <div key={n} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <Width
            label={`${noun} ${n + 1} is`}
            value={stripe.width_mm}
            onChange={(width_mm) => set(n, { width_mm })}
          />
          {mirrored && n > 0 && n === stripes.length - 1 ? (
            <span />
          ) : (
            <Width label="then a gap of" value={stripe.gap_mm} onChange={(gap_mm) => set(n, { gap_mm })} />
          )}
          {stripes.length > 1 && (
            <button
              type="button"
              className="press"
              aria-label={`Take out ${noun.toLowerCase()} ${n + 1}`}
              onClick={() => onChange(stripes.filter((_, k) => k !== n))}
            >
              ×
            </button>
          )}
        </div>
      ))}
      {stripes.length < 8 && (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() => onChange([...stripes, { width_mm: 10, gap_mm: 20, name: "" }])}
        >
          Another {noun.toLowerCase()} in the repeat
        </button>
      )}
    </>
  );
}

function Repeats({ layout, onChange }: FieldsProps) {
  const stencil = layout.kind === "repeats";
  const both = layout.kind === "checks" || layout.kind === "panels";
  const noun = stencil ? "Motif" : layout.kind === "panels" ? "Panel" : "Stripe";
  return (
    <div className="grid gap-3">
      <Stripes
        noun={noun}
        stripes={layout.stripes}
        mirrored={layout.mirrored}
        onChange={(stripes) => onChange({ stripes })}
      />
      {both && (
        <>
          <Tick
            label="the same down as across"
            value={layout.down.length === 0}
            onChange={(same) => onChange({ down: same ? [] : layout.stripes.map((s) => ({ ...s })) })}
          />
          {layout.down.length > 0 && (
            <Stripes noun="Down" stripes={layout.down} onChange={(down) => onChange({ down })} />
          )}
        </>
      )}
      {stencil && (
        <Tick
          label="all around, with a piece in each corner"
          value={layout.around}
          onChange={(around) => onChange({ around })}
        />
      )}
      <div className="grid grid-cols-2 gap-3">
        {!both && !layout.around && (
          <Choice
            label={stencil ? "The row runs" : "Stripes run"}
            value={layout.runs}
            options={RUNS}
            onChange={(runs) => onChange({ runs: runs as Layout["runs"] })}
          />
        )}
        {layout.around && stencil && <Corners layout={layout} onChange={onChange} />}
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
        {stencil && (
          <>
            <MmField
              label="The row is high"
              value={layout.row_mm}
              min={5}
              max={2000}
              onChange={(row_mm) => onChange({ row_mm })}
            />
            <MmField
              label="in from the edge"
              value={layout.inset_mm}
              min={0}
              max={3000}
              onChange={(inset_mm) => onChange({ inset_mm })}
            />
            <Covers layout={layout} label="Of its box a motif paints" onChange={onChange} />
          </>
        )}
        {layout.stripes.length > 1 && !stencil && (
          <div className="col-span-2">
            <Tick
              label="there and back: the same from both edges"
              value={layout.mirrored}
              onChange={(mirrored) => onChange({ mirrored })}
            />
          </div>
        )}
      </div>
    </div>
  );
}
