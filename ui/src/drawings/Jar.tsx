import type { JarDrawing } from "../api/client";
import { ml } from "../parts/say";

const WIDTH = 190;
const HEIGHT = 420;
const WALL = 3;
const LEFT = 96;

/** The jar: a mix in pouring order, true to volume, graduated in the user's own measures. */
export function Jar({ jar, picked }: { jar: JarDrawing; picked?: string | undefined }) {
  const y = (ml: number) => HEIGHT - (ml / jar.capacity_ml) * HEIGHT;
  const title = `${jar.vessel}, ${ml(jar.capacity_ml)}, filled to ${ml(jar.fill_ml)}`;
  return (
    <svg
      viewBox={`0 -14 ${LEFT + WIDTH + 8} ${HEIGHT + 24}`}
      role="img"
      aria-label={`${title}: ${jar.strata.map((s) => `${ml(s.top_ml - s.bottom_ml)} ${s.name}`).join(", then ")}`}
      preserveAspectRatio="xMinYMin meet"
      className="h-full w-full"
    >
      <defs>
        <pattern id="thin" width="26" height="9" patternUnits="userSpaceOnUse">
          <path d="M2 3h10M15 7.5h8" stroke="var(--color-ink)" strokeOpacity="0.35" strokeWidth="1.2" />
        </pattern>
        <pattern id="dry" width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="1.1" fill="var(--color-ink)" fillOpacity="0.6" />
        </pattern>
      </defs>
      <rect x={LEFT} y={0} width={WIDTH} height={HEIGHT} fill="var(--color-enamel)" />
      {jar.strata.map((s) => (
        <g key={s.component}>
          <rect x={LEFT} y={y(s.top_ml)} width={WIDTH} height={y(s.bottom_ml) - y(s.top_ml)} fill={s.hex} />
          {s.name === "Water" && (
            <rect
              x={LEFT}
              y={y(s.top_ml)}
              width={WIDTH}
              height={y(s.bottom_ml) - y(s.top_ml)}
              fill="url(#thin)"
            />
          )}
          {s.solid && (
            <rect
              x={LEFT + WIDTH * 0.62}
              y={y(s.dry_top_ml)}
              width={WIDTH * 0.38}
              height={y(s.bottom_ml) - y(s.dry_top_ml)}
              fill="url(#dry)"
              stroke="var(--color-ink)"
              strokeWidth="1"
              strokeDasharray="3 3"
            />
          )}
          <line
            x1={LEFT}
            x2={LEFT + WIDTH}
            y1={y(s.top_ml)}
            y2={y(s.top_ml)}
            stroke="var(--color-ink)"
            strokeWidth={picked === s.component ? 4 : 1.5}
          />
        </g>
      ))}
      {jar.graduations.map((g) => (
        <g key={g.ml}>
          <line
            x1={LEFT}
            x2={LEFT + (g.label ? 26 : 13)}
            y1={y(g.ml)}
            y2={y(g.ml)}
            stroke="var(--color-ink)"
            strokeWidth={g.label ? 2 : 1.2}
          />
          {g.label && (
            <text
              x={LEFT - 9}
              y={y(g.ml) + 7}
              textAnchor="end"
              className="narrow"
              fontSize="20"
              fontWeight="560"
            >
              {g.label}
            </text>
          )}
        </g>
      ))}
      <path
        d={`M${LEFT - 7} 0H${LEFT}V${HEIGHT}H${LEFT + WIDTH}V0H${LEFT + WIDTH + 7}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={WALL}
      />
    </svg>
  );
}
