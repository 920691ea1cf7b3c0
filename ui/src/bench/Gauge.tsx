import { grams } from "../parts/say";

const STEPS = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

interface Props {
  /** What is to be in the pot of it, and what is. */
  mark: number;
  poured: number;
  near: number;
  hex: string;
}

/** How full: a rule in true grams, filled to what was poured, the mark across it. */
export function Gauge({ mark, poured, near, hex }: Props) {
  const most = Math.max(mark * 1.18, poured * 1.06, 1);
  const step = STEPS.find((s) => most / s <= 9) ?? 2000;
  const y = (g: number) => 400 - (Math.min(Math.max(g, 0), most) / most) * 400;
  const ticks = Array.from({ length: Math.floor(most / (step / 5)) + 1 }, (_, i) => (i * step) / 5);
  const over = poured > mark + near;
  return (
    <svg
      viewBox="-4 -14 250 428"
      role="img"
      aria-label={`${grams(Math.max(poured, 0))} of ${grams(mark)}`}
      className="h-full max-h-[60dvh] w-full"
      preserveAspectRatio="xMidYMid meet"
    >
      <defs>
        <pattern id="over" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="9" fill="var(--color-ink)" />
        </pattern>
      </defs>
      <rect x={84} y={0} width={120} height={400} fill="var(--color-enamel)" />
      <rect x={84} y={y(poured)} width={120} height={400 - y(poured)} fill={hex || "var(--color-soft)"} />
      {over && <rect x={84} y={y(poured)} width={120} height={y(mark) - y(poured)} fill="url(#over)" />}
      {ticks.map((g, i) => (
        <g key={g}>
          <line
            x1={84}
            x2={84 - (i % 5 === 0 ? 22 : 11)}
            y1={y(g)}
            y2={y(g)}
            stroke="var(--color-ink)"
            strokeWidth={i % 5 === 0 ? 2 : 1}
          />
          {i % 5 === 0 && (
            <text x={56} y={y(g) + 6} textAnchor="end" className="narrow" fontSize="19" fontWeight="560">
              {g}
            </text>
          )}
        </g>
      ))}
      <rect x={84} y={0} width={120} height={400} fill="none" stroke="var(--color-ink)" strokeWidth="3" />
      <line x1={74} x2={222} y1={y(mark)} y2={y(mark)} stroke="var(--color-enamel)" strokeWidth="9" />
      <line x1={74} x2={222} y1={y(mark)} y2={y(mark)} stroke="var(--color-ink)" strokeWidth="5" />
      <path d={`M222 ${y(mark)}l18 -10v20z`} fill="var(--color-ink)" />
    </svg>
  );
}
