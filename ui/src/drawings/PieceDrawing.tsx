import type { PieceGeometry } from "../api/client";

interface PieceDrawingProps {
  drawing: PieceGeometry;
  fill: string;
  sizes: Record<string, string>;
}

/** The piece from its sizes, to scale: coated faces in the look planned for them, bare ones hatched. */
export function PieceDrawing({ drawing, fill, sizes }: PieceDrawingProps) {
  const scale = 1000 / Math.max(drawing.width, drawing.height * 1.6);
  const pad = 96;
  const width = drawing.width * scale;
  const height = drawing.height * scale;
  return (
    <svg
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad}`}
      role="img"
      aria-label={`The piece to scale: ${Object.entries(sizes)
        .map(([size, typed]) => `${size} ${typed}`)
        .join(", ")}`}
      className="max-h-[230px] w-full"
    >
      <defs>
        <pattern id="bare" width="16" height="16" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V16" stroke="var(--color-ink)" strokeWidth="2.5" />
        </pattern>
      </defs>
      {drawing.faces.map((face) => (
        <polygon
          key={face.name}
          points={face.outline.map((p) => `${p.x * scale},${p.y * scale}`).join(" ")}
          fill={face.shown_as === "bare" ? "url(#bare)" : fill}
          stroke="var(--color-ink)"
          strokeWidth="3"
        />
      ))}
      {drawing.callouts.map((c) => {
        const [x1, y1, x2, y2] = [c.start.x * scale, c.start.y * scale, c.end.x * scale, c.end.y * scale];
        const upright = c.side === "right" || c.side === "left";
        const off = c.side === "above" || c.side === "left" ? -22 : 22;
        const dx = upright ? off : 0;
        const dy = upright ? 0 : off;
        const tick = (x: number, y: number) =>
          upright ? `M${x + dx - 9} ${y}h18` : `M${x} ${y + dy - 9}v18`;
        return (
          <g key={c.size} stroke="var(--color-ink)" strokeWidth="2.5" fill="none">
            <path d={`M${x1 + dx} ${y1 + dy}L${x2 + dx} ${y2 + dy}${tick(x1, y1)}${tick(x2, y2)}`} />
            <text
              x={(x1 + x2) / 2 + dx * 1.4}
              y={(y1 + y2) / 2 + dy * 1.4}
              dy={c.side === "below" ? 40 : c.side === "above" ? -8 : 12}
              textAnchor="middle"
              transform={upright ? `rotate(90 ${(x1 + x2) / 2 + dx * 2.4} ${(y1 + y2) / 2})` : undefined}
              stroke="none"
              fill="var(--color-ink)"
              className="numeral"
              fontSize="54"
            >
              {sizes[c.size]}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
