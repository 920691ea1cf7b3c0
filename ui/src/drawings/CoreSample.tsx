import type { Section } from "../api/client";

type Notch = Section["notches"][number];

interface CoreSampleProps {
  section: Section;
  picked: string;
  /** Above its sealer a layer is drawn darker when it is the one that is picked. */
  onNotch: (notch: Notch) => void;
}

/**
 * The stack in section, from the ground up. Film heights are exaggerated but ordered truly, gaps are waits, a notch
 * is a boundary where the checker found something: deep and black for what will fail, half for what is risky, a mere
 * nick for what is good to know, hollow once it is accepted.
 */
export function CoreSample({ section, picked, onNotch }: CoreSampleProps) {
  const { width, height } = section;
  const left = 14;
  const lead = 26;
  return (
    <svg
      viewBox={`${-left} 0 ${left + width + lead} ${height}`}
      width={left + width + lead}
      height={height}
      role="img"
      aria-label={`The stack in section on ${section.ground_name}: ${section.bands
        .map((b) => b.name)
        .reverse()
        .join(", ")}`}
      className="shrink-0"
    >
      <defs>
        <pattern id="hatch-clear" width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M0 7L7 0" stroke="var(--color-ink)" strokeWidth="0.7" opacity="0.55" />
        </pattern>
        <pattern id="hatch-wax" width="6" height="6" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="0.9" fill="var(--color-ink)" opacity="0.6" />
        </pattern>
        <pattern id="hatch-primer" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 2.5H5" stroke="var(--color-ink)" strokeWidth="0.7" opacity="0.6" />
        </pattern>
        <pattern id="hatch-ground" width="9" height="9" patternUnits="userSpaceOnUse">
          <path
            d="M0 4.5Q2.2 2 4.5 4.5T9 4.5"
            stroke="var(--color-ink)"
            strokeWidth="0.8"
            fill="none"
            opacity="0.4"
          />
        </pattern>
      </defs>
      <rect y={section.ground_y} width={width} height={height - section.ground_y} fill={section.ground_hex} />
      <rect y={section.ground_y} width={width} height={height - section.ground_y} fill="url(#hatch-ground)" />
      {section.bands.map((band, row) => {
        const d = `M${band.outline.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("L")}Z`;
        const middle = (band.top + band.floor) / 2;
        const gap = band.wait_height;
        const on = band.layer === picked;
        return (
          <g key={band.layer}>
            <path d={d} fill={band.hex} stroke="var(--color-ink)" strokeWidth={on ? 2.6 : 1} />
            {band.hatch && <path d={d} fill={`url(#hatch-${band.hatch})`} />}
            {coatLines(band).map((y) => (
              <path
                key={y}
                d={`M0 ${y}H${width}`}
                stroke="var(--color-ink)"
                strokeWidth="0.5"
                opacity="0.6"
              />
            ))}
            {band.sanded > 0 && (
              <path
                d={`M0 ${band.top - 1}${"l4 4l4 -4".repeat(Math.floor(width / 8))}`}
                stroke="var(--color-ink)"
                strokeWidth="1.2"
                fill="none"
              />
            )}
            {gap > 4 && (
              <path
                d={`M${width / 2} ${band.top - 1.5}v${-gap + 3}m-4 0h8m-8 ${gap - 3}h8`}
                stroke="var(--color-soft)"
                strokeWidth="1.2"
                fill="none"
              />
            )}
            <path
              d={`M${width} ${middle}L${width + lead - 6} ${(row + 0.5) * section.row_height}h6`}
              stroke="var(--color-ink)"
              strokeWidth={on ? 2.4 : 1}
              fill="none"
            />
          </g>
        );
      })}
      <path d={`M0 ${section.ground_y}H${width}`} stroke="var(--color-ink)" strokeWidth="1.5" />
      {section.notches.map((notch) => {
        const deep = { "can hurt": 26, "will fail": 26, risky: 18, "good to know": 8 }[notch.grade];
        const y = notch.y;
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: its twin is the list of findings beside the drawing
          <g key={notch.below + notch.above} className="cursor-pointer" onClick={() => onNotch(notch)}>
            <path
              d={`M-1 ${y - deep * 0.45}L${deep} ${y}L-1 ${y + deep * 0.45}Z`}
              fill={
                notch.accepted || notch.grade === "good to know" ? "var(--color-enamel)" : "var(--color-ink)"
              }
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
            <rect x={-left} y={y - 22} width={44} height={44} fill="transparent" />
          </g>
        );
      })}
    </svg>
  );
}

/** Where one coat of a layer ends and the next begins. */
function coatLines(band: Section["bands"][number]): number[] {
  const lines = [];
  for (let k = 1; k < band.coats; k += 1) lines.push(band.floor - ((band.floor - band.top) * k) / band.coats);
  return lines;
}
