import { useId } from "react";
import type { GlazePlan, PieceGeometry } from "../api/client";
import { path, withHoles } from "../drawings/outlines";
import { say } from "../parts/say";

interface SectionsProps {
  plans: GlazePlan[];
  drawing: PieceGeometry | null | undefined;
}

/** Faces that are glazed wet in wet: their sections on the piece and one by one, in order, with stroke and overlap. */
export function Sections({ plans, drawing }: SectionsProps) {
  if (!plans.length) return null;
  const layers = [...new Set(plans.map((p) => `${p.zone} ${p.layer}`))];
  const cut = plans.some((p) => p.strips.length > 1 || p.at.length > 1);
  return (
    <section className="border-y-2 border-ink py-3">
      <h2 className="wide font-bold">Keeping a wet edge</h2>
      {drawing &&
        cut &&
        layers.map((layer) => (
          <OnPiece
            key={layer}
            drawing={drawing}
            plans={plans.filter((p) => `${p.zone} ${p.layer}` === layer)}
          />
        ))}
      <ul className="flex flex-wrap gap-6">
        {plans.map((plan) => (
          <li key={plan.layer + plan.surface} className="max-w-xs">
            <h3 className="mt-2 font-semibold">
              {plan.surface}
              {plan.like > 1 && ` × ${plan.like}`}
            </h3>
            {plan.strips.length > 0 ? (
              <>
                <Strips plan={plan} />
                <p className="narrow text-sm">
                  {said(plan)} {Math.ceil(Math.max(...plan.strips.map((s) => s.minutes)))} min or less: it
                  stays open about {Math.round(plan.open_min)} min here. Strokes from end to end. An estimate:
                  try it on a card.
                </p>
                {plan.strips.length > 1 && (
                  <p className="narrow text-sm">
                    In order: {plan.strips.map((s) => `${s.number} of ${say(s.area_m2)} m²`).join(", ")}.
                  </p>
                )}
              </>
            ) : (
              <div role="alert" className="border-l-4 border-ink pl-2">
                <strong>{plan.says}</strong>
                <ul className="list-disc pl-5">
                  {plan.ways.map((way) => (
                    <li key={way}>{way}</li>
                  ))}
                </ul>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How many sections there are, and how they end. */
function said(plan: GlazePlan): string {
  if (plan.strips.length === 1) return "In one go, in about";
  const widths = plan.strips.map((s) => Math.round(s.width_mm));
  const [least, most] = [Math.min(...widths), Math.max(...widths)];
  const wide = least === most ? `${least}` : `${least} to ${most}`;
  if (plan.breaks === "under the tape") {
    return `${plan.strips.length} sections, each ends under the tape, each in about`;
  }
  const where = plan.breaks ? `, broken first ${plan.breaks}` : "";
  return `${plan.strips.length} sections of ${wide} mm${where}, each ${plan.overlap_mm} mm over the last, each in about`;
}

/** All sections of a layer where they are on the piece, numbered in order face by face. */
function OnPiece({ drawing, plans }: { drawing: PieceGeometry; plans: GlazePlan[] }) {
  const unit = Math.max(drawing.width, drawing.height) / 220;
  // One face after the other: each goes on counting where the last one ended.
  let done = 0;
  return (
    <svg
      role="img"
      aria-label={`The piece with the sections of ${plans.length} ${plans.length === 1 ? "face" : "faces"}, listed below`}
      viewBox={`${-2 * unit} ${-2 * unit} ${drawing.width + 4 * unit} ${drawing.height + 4 * unit}`}
      className="my-2 max-h-72 w-full max-w-xl"
    >
      {drawing.faces.map((face) => (
        <path
          key={face.name + String(face.outline[0]?.x) + String(face.outline[0]?.y)}
          d={path(face.outline)}
          fill="var(--color-enamel)"
          stroke="var(--color-soft)"
          strokeWidth={unit / 2}
        />
      ))}
      {plans.flatMap((plan) =>
        plan.at.map((at) => {
          const before = done;
          done += plan.strips.length;
          return (
            <g key={`${plan.surface} ${at.x} ${at.y}`} transform={`translate(${at.x} ${at.y})`}>
              <Cut plan={plan} unit={unit} before={before} small />
            </g>
          );
        }),
      )}
    </svg>
  );
}

function Strips({ plan }: { plan: GlazePlan }) {
  const [wide, high] =
    plan.stroke === "down" ? [plan.across_mm, plan.stroke_mm] : [plan.stroke_mm, plan.across_mm];
  const unit = Math.max(wide, high) / 220;
  return (
    <svg
      role="img"
      aria-label={`${plan.surface} in ${plan.strips.length} sections, strokes ${plan.stroke}`}
      viewBox={`${-2 * unit} ${-2 * unit} ${wide + 4 * unit} ${high + 4 * unit}`}
      style={{ width: wide / unit, maxHeight: 240 }}
      className="my-2"
    >
      <path
        d={withHoles(plan.outline, plan.holes)}
        fillRule="evenodd"
        fill="var(--color-enamel)"
        stroke="var(--color-ink)"
        strokeWidth={1.6 * unit}
      />
      <Cut plan={plan} unit={unit} />
    </svg>
  );
}

interface CutProps {
  plan: GlazePlan;
  unit: number;
  /** How many sections there are on faces before it. */
  before?: number;
  small?: boolean;
}

/** The sections of a face in its own mm: each outlined, where it laps over the last dark, its number and its stroke. */
function Cut({ plan, unit, before = 0, small = false }: CutProps) {
  const own = useId();
  const down = plan.stroke === "down";
  const long = plan.stroke_mm;
  return (
    <>
      <clipPath id={own}>
        <path d={withHoles(plan.outline, plan.holes)} clipRule="evenodd" />
      </clipPath>
      <g clipPath={`url(#${own})`}>
        {plan.strips.map((strip) => {
          const middle = strip.start_mm + strip.width_mm / 2;
          const lap = { x: strip.start_mm, y: 0, width: strip.over_mm, height: long };
          const [x, y] = down ? [middle, long * 0.5] : [long * 0.5, middle];
          const size = small ? Math.min(9 * unit, strip.width_mm * 0.7, long * 0.7) : 15 * unit;
          const arrow = down
            ? `M${middle} ${long * 0.58}V${long * 0.84}l${-4 * unit} ${-7 * unit}m${4 * unit} ${7 * unit}l${4 * unit} ${-7 * unit}`
            : `M${long * 0.58} ${middle}H${long * 0.84}l${-7 * unit} ${-4 * unit}m${7 * unit} ${4 * unit}l${-7 * unit} ${4 * unit}`;
          return (
            <g key={strip.number}>
              <path
                d={strip.outlines.map(path).join("")}
                fill="none"
                stroke="var(--color-ink)"
                strokeWidth={unit * (small ? 0.6 : 1)}
              />
              {strip.over_mm > 0 && (
                <rect
                  {...(down ? lap : { x: 0, y: strip.start_mm, width: long, height: strip.over_mm })}
                  fill="var(--color-ink)"
                  opacity="0.28"
                />
              )}
              {!small && <path d={arrow} stroke="var(--color-soft)" strokeWidth={unit} fill="none" />}
              <text
                x={x}
                y={y + size * 0.35}
                textAnchor="middle"
                fontSize={size}
                fontWeight="700"
                stroke="var(--color-enamel)"
                strokeWidth={size / 6}
                paintOrder="stroke"
              >
                {before + strip.number}
              </text>
            </g>
          );
        })}
      </g>
    </>
  );
}
