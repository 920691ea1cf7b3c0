import { useId } from "react";
import type { PieceGeometry } from "../api/client";

interface MiniPieceProps {
  drawing: PieceGeometry;
  /** The zone that is filled with the tile; others in their colour. */
  zone?: string;
  tile?: string;
  /** How much of a surface the tile shows, in mm. */
  tileMm?: number;
  fills?: Record<string, string>;
  className?: string;
}

/** The piece, small, one zone in a look. */
export function MiniPiece({
  drawing,
  zone = "",
  tile = "",
  tileMm = 1,
  fills = {},
  className = "max-h-32 w-full bg-steel",
}: MiniPieceProps) {
  const id = useId();
  return (
    <svg viewBox={`-8 -8 ${drawing.width + 16} ${drawing.height + 16}`} className={className} aria-hidden>
      {tile && <Tile id={id} address={tile} side={tileMm} />}
      {drawing.faces.map((face, i) => (
        <OwnStretch
          key={`${id}${face.name}${face.outline[0]?.x}`}
          id={`${id}/${i}`}
          of={id}
          n={i}
          side={tileMm}
        />
      ))}
      {drawing.faces.map((face, i) => (
        <polygon
          key={face.name + String(face.outline[0]?.x) + String(face.outline[0]?.y)}
          points={face.outline.map((p) => `${p.x},${p.y}`).join(" ")}
          fill={face.zone === zone && tile ? `url(#${id}/${i})` : (fills[face.zone] ?? "var(--color-enamel)")}
          stroke="var(--color-ink)"
          strokeWidth={Math.max(drawing.width, drawing.height) / 160}
        />
      ))}
    </svg>
  );
}

/** A look as a fill: `side` is how wide its tile is in the drawing. */
export function Tile({ id, address, side }: { id: string; address: string; side: number }) {
  return (
    <defs>
      <pattern id={id} width={side} height={side} patternUnits="userSpaceOnUse">
        <image href={address} width={side} height={side} preserveAspectRatio="none" />
      </pattern>
    </defs>
  );
}

const STEP = 0.382;

/** The same tile, begun elsewhere: no two faces show the same stretch of it. */
export function OwnStretch({ id, of, n, side }: { id: string; of: string; n: number; side: number }) {
  const [x, y] = [((n * STEP) % 1) * side, ((n * STEP * STEP * 4) % 1) * side];
  return (
    <defs>
      <pattern id={id} href={`#${of}`} patternTransform={`translate(${x} ${y})`} />
    </defs>
  );
}
