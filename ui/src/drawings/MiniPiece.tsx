import { useId } from "react";
import type { PieceGeometry } from "../api/client";

/** How much of a surface a tile shows, in mm: as the API says of tiles. */
export const TILE_MM = 450;

interface MiniPieceProps {
  drawing: PieceGeometry;
  /** The zone that is filled with the tile; others in their colour. */
  zone: string;
  tile: string;
  fills: Record<string, string>;
}

/** The piece, small, one zone in a look. */
export function MiniPiece({ drawing, zone, tile, fills }: MiniPieceProps) {
  const id = useId();
  return (
    <svg
      viewBox={`-8 -8 ${drawing.width + 16} ${drawing.height + 16}`}
      className="max-h-32 w-full bg-steel"
      aria-hidden
    >
      {tile && <Tile id={id} address={tile} scale={1} />}
      {drawing.faces.map((face) => (
        <polygon
          key={face.name + String(face.outline[0]?.x) + String(face.outline[0]?.y)}
          points={face.outline.map((p) => `${p.x},${p.y}`).join(" ")}
          fill={
            face.zone === zone && tile ? `url(#${id})` : face.zone ? fills[face.zone] : "var(--color-enamel)"
          }
          stroke="var(--color-ink)"
          strokeWidth={Math.max(drawing.width, drawing.height) / 160}
        />
      ))}
    </svg>
  );
}

/** A look as a fill, at its scale: `scale` is how many units of the drawing a mm is. */
export function Tile({ id, address, scale }: { id: string; address: string; scale: number }) {
  const side = TILE_MM * scale;
  return (
    <defs>
      <pattern id={id} width={side} height={side} patternUnits="userSpaceOnUse">
        <image href={address} width={side} height={side} preserveAspectRatio="none" />
      </pattern>
    </defs>
  );
}
