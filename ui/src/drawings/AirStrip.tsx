import { useId } from "react";
import type { RoomNow } from "../api/client";

/** The air: the last day as it was measured, the next two as they may become; hatched where no film forms. */
export function AirStrip({ drawing }: { drawing: RoomNow["drawing"] }) {
  const id = useId().replaceAll(":", "");
  const { width, height } = drawing;
  return (
    <svg
      viewBox={`-2 -16 ${width + 4} ${height + 20}`}
      className="mt-2 block w-full max-w-xl"
      role="img"
      aria-label="Temperature over the last day and the next two; what it comes to is said below"
    >
      <defs>
        <pattern
          id={`${id}-unfit`}
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V6" stroke="var(--color-ink)" strokeWidth="1.4" />
        </pattern>
      </defs>
      <rect width={width} height={height} fill="var(--color-enamel)" stroke="var(--color-line)" />
      {drawing.hours.map((h) =>
        h.fit ? null : (
          <rect
            key={h.x}
            x={h.x}
            y={0}
            width={h.width}
            height={height}
            fill={`url(#${id}-unfit)`}
            opacity="0.45"
          />
        ),
      )}
      <path
        d={`M0 ${drawing.coldest_y}H${width}`}
        stroke="var(--color-ink)"
        strokeWidth="0.8"
        strokeDasharray="2 4"
      />
      <path
        d={drawing.hours.map((h) => `M${h.x} ${h.y}h${h.width}`).join("")}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="1.6"
      />
      {drawing.dots.map((d) => (
        <circle
          key={d.x}
          cx={d.x}
          cy={d.y}
          r="2"
          fill={d.believed ? "var(--color-ink)" : "none"}
          stroke="var(--color-ink)"
          strokeWidth="0.8"
        />
      ))}
      <path d={`M${drawing.now_x} -4V${height}`} stroke="var(--color-ink)" strokeWidth="2" />
      <g fontSize="12" fill="var(--color-ink)">
        <text x={drawing.now_x + 4} y="-5" fontWeight="700">
          now
        </text>
        {drawing.days.map((d) => (
          <g key={d.x}>
            <path d={`M${d.x} 0V${height}`} stroke="var(--color-line)" />
            <text x={d.x + 3} y={height - 4}>
              {d.says}
            </text>
          </g>
        ))}
        <text x="3" y={drawing.coldest_y - 3}>
          10 °C
        </text>
      </g>
    </svg>
  );
}
