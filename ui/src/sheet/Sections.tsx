import { useId } from "react";
import type { GlazePlan } from "../api/client";
import { say } from "../parts/say";

/** Faces that are glazed wet in wet: their sections to scale, in order, with the stroke and the overlap. */
export function Sections({ plans }: { plans: GlazePlan[] }) {
  if (!plans.length) return null;
  return (
    <section className="border-y-2 border-ink py-3">
      <h2 className="wide font-bold">Keeping a wet edge</h2>
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
                  {plan.strips.length === 1
                    ? "In one go, in about "
                    : `${plan.strips.length} sections of ${Math.round(plan.strips[0]?.width_mm ?? 0)} mm, each ${plan.overlap_mm} mm over the last, each in about `}
                  {Math.ceil(Math.max(...plan.strips.map((s) => s.minutes)))} min or less: it stays open about{" "}
                  {Math.round(plan.open_min)} min here. Strokes from end to end. An estimate: try it on a
                  card.
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

function Strips({ plan }: { plan: GlazePlan }) {
  const across = plan.across_mm;
  const long = plan.stroke_mm;
  const unit = Math.max(across, long) / 220;
  const own = useId();
  const edge = `M${plan.outline.map((p) => `${p.x} ${p.y}`).join("L")}Z`;
  return (
    <svg
      role="img"
      aria-label={`${plan.surface} in ${plan.strips.length} sections, strokes ${plan.stroke}`}
      viewBox={`${-2 * unit} ${-2 * unit} ${across + 4 * unit} ${long + 4 * unit}`}
      style={{ width: across / unit, maxHeight: 240 }}
      className="my-2"
    >
      <clipPath id={own}>
        <path d={edge} />
      </clipPath>
      <path d={edge} fill="var(--color-enamel)" stroke="var(--color-ink)" strokeWidth={1.6 * unit} />
      {plan.strips.map((strip, i) => (
        <g key={strip.number} clipPath={`url(#${own})`}>
          {i > 0 && (
            <rect
              x={strip.start_mm}
              width={plan.overlap_mm}
              height={long}
              fill="var(--color-ink)"
              opacity="0.28"
            />
          )}
          {i > 0 && <path d={`M${strip.start_mm} 0V${long}`} stroke="var(--color-ink)" strokeWidth={unit} />}
          <path
            d={`M${strip.start_mm + strip.width_mm / 2} ${long * 0.54}V${long * 0.84}l${-4 * unit} ${-7 * unit}m${4 * unit} ${7 * unit}l${4 * unit} ${-7 * unit}`}
            stroke="var(--color-soft)"
            strokeWidth={unit}
            fill="none"
          />
          <text
            x={strip.start_mm + strip.width_mm / 2}
            y={long * 0.5}
            textAnchor="middle"
            fontSize={15 * unit}
            fontWeight="700"
          >
            {strip.number}
          </text>
        </g>
      ))}
    </svg>
  );
}
