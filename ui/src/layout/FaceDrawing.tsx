import { useId } from "react";
import type { FaceLayout } from "../api/client";
import { withHoles } from "../drawings/outlines";

/** A face to scale with its pattern: painted parts hatched and numbered, told apart without hue. */
export function FaceDrawing({ face }: { face: FaceLayout }) {
  const own = useId();
  const { width_mm: width, height_mm: height, laid } = face;
  const unit = Math.max(width, height) / 100;
  return (
    <svg
      viewBox={`${-unit} ${-unit} ${width + 2 * unit} ${height + 2 * unit}`}
      className="mt-2 max-h-[45dvh] w-full"
      role="img"
      aria-label={`${face.name} with ${laid.regions.length} painted parts, listed below`}
    >
      <defs>
        <pattern
          id={own}
          width={unit}
          height={unit}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d={`M0 0V${unit}`} stroke="var(--color-ink)" strokeWidth={unit / 3} />
        </pattern>
      </defs>
      <path
        d={withHoles(face.outline, face.holes)}
        fillRule="evenodd"
        fill="var(--color-enamel)"
        stroke="var(--color-ink)"
        strokeWidth={unit / 3}
      />
      {laid.regions.map((region) => {
        const xs = region.outline.map((p) => p.x);
        const ys = region.outline.map((p) => p.y);
        const box = { w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) };
        const roomy = region.holes.length === 0 && Math.min(box.w, box.h) > 3 * unit;
        return (
          <g key={region.number}>
            <path
              d={withHoles(region.outline, region.holes)}
              fillRule="evenodd"
              fill={`url(#${own})`}
              stroke="var(--color-ink)"
              strokeWidth={unit / 5}
            />
            {roomy && (
              <text
                x={Math.min(...xs) + box.w * (box.w > 3 * box.h ? 0.38 : 0.5)}
                y={Math.min(...ys) + box.h * (box.h > 3 * box.w ? 0.27 : 0.5) + unit}
                textAnchor="middle"
                className="numeral"
                fontSize={Math.min(3 * unit, box.w * 0.7, box.h * 0.7)}
                stroke="var(--color-enamel)"
                strokeWidth={unit * 0.8}
                paintOrder="stroke"
              >
                {region.number}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
