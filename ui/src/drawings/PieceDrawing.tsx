import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import type { PieceGeometry, PlanPattern } from "../api/client";
import { tileOf } from "../api/look";
import { OwnStretch, Tile } from "./MiniPiece";
import { withHoles } from "./outlines";

interface PieceDrawingProps {
  drawing: PieceGeometry;
  fills: Record<string, string>;
  /** A look of each zone, by zone, as a tile to fill it with. */
  tiles: Record<string, string>;
  /** How much of a surface a tile shows, in mm. */
  tileMm: number;
  /** Where layers with a layout go, from the ground up. */
  patterns?: PlanPattern[];
  sizes: Record<string, string>;
  areas: Record<string, string>;
  picked: string;
  onPickZone: (zone: string) => void;
  /** The field a size is edited in, right at its callout. */
  editor: (size: string) => ReactNode;
  /** Beside other things: no sizes, no areas. */
  small?: boolean;
}

const SPAN = 1000;

/**
 * The piece from its sizes, to scale: zones in the look planned for them and pickable, bare faces hatched.
 * Pressing is for the pointer: every zone, surface and size has its twin in the lists and fields under the drawing,
 * for keyboard and screen reader.
 */
export function PieceDrawing({
  drawing,
  fills,
  tiles,
  tileMm,
  patterns = [],
  sizes,
  areas,
  picked,
  onPickZone,
  editor,
  small = false,
}: PieceDrawingProps) {
  const scale = SPAN / Math.max(drawing.width, drawing.height * 1.25, 1);
  const own = useId();
  const pad = small ? 10 : 96;
  const width = drawing.width * scale;
  const height = drawing.height * scale;
  const said = new Set<string>();
  const stamps: { x: number; y: number; words: string }[] = [];
  const sheet = useRef<HTMLDivElement>(null);
  const [editing, setEditing] = useState<{ size: string; left: number; top: number } | null>(null);
  const field = editing && editor(editing.size);
  useEffect(() => {
    if (editing) sheet.current?.querySelector<HTMLInputElement>("[data-callout] input")?.select();
  }, [editing]);

  /** Open the size's field where its callout stands, inside the sheet. */
  function edit(size: string, callout: SVGGElement) {
    const whole = sheet.current?.getBoundingClientRect();
    if (!whole) return;
    const at = callout.getBoundingClientRect();
    const left = Math.min(
      Math.max(0, (at.left + at.right) / 2 - whole.left - 76),
      Math.max(0, whole.width - 152),
    );
    setEditing({ size, left, top: Math.max(0, (at.top + at.bottom) / 2 - whole.top - 36) });
  }
  return (
    <div ref={sheet} className="relative">
      <svg
        viewBox={`${-pad * 1.6} ${-pad} ${width + pad * 2.6} ${height + pad * 2.2}`}
        className={small ? "max-h-40 w-full lg:max-h-56" : "max-h-[62dvh] w-full"}
        aria-label={
          small
            ? "The piece, drawn to scale"
            : `The piece to scale: ${Object.entries(sizes)
                .map(([size, typed]) => `${size.replaceAll("_", " ")} ${typed}`)
                .join(", ")}`
        }
      >
        <title>The piece, drawn to scale</title>
        <defs>
          <pattern
            id={`${own}bare`}
            width="16"
            height="16"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V16" stroke="var(--color-soft)" strokeWidth="2" />
          </pattern>
        </defs>
        {Object.entries(tiles).map(([zone, address]) => (
          <Tile key={zone} id={`${own}${zone}`} address={address} side={tileMm * scale} />
        ))}
        {drawing.faces.map((face, i) => (
          <OwnStretch
            key={`${face.name}${face.outline[0]?.x} ${face.outline[0]?.y}`}
            id={`${own}${face.zone}/${i}`}
            of={`${own}${face.zone}`}
            n={i}
            side={tileMm * scale}
          />
        ))}
        {drawing.faces.map((face, i) => {
          const points = face.outline.map((p) => ({ x: p.x * scale, y: p.y * scale }));
          const xs = points.map((p) => p.x);
          const ys = points.map((p) => p.y);
          const corner = { x: Math.min(...xs), y: Math.min(...ys) };
          const roomy = Math.max(...xs) - Math.min(...xs) > 150 && Math.max(...ys) - Math.min(...ys) > 62;
          const words = !said.has(face.surface) && roomy ? areas[face.surface] : undefined;
          if (words) {
            said.add(face.surface);
            const covers = (p: { x: number; y: number }) =>
              Math.abs(p.x - corner.x) < 136 && Math.abs(p.y - corner.y) < 50;
            while (stamps.some(covers)) corner.y += 52; // below the area that is written there already
            stamps.push({ ...corner, words });
          }
          return (
            <g
              key={face.name + String(face.outline[0]?.x) + String(face.outline[0]?.y)}
              onClick={() => face.zone && onPickZone(face.zone)}
              className={face.zone ? "cursor-pointer" : ""}
            >
              <polygon
                points={points.map((p) => `${p.x},${p.y}`).join(" ")}
                fill={
                  !face.zone
                    ? `url(#${own}bare)`
                    : tiles[face.zone]
                      ? `url(#${own}${face.zone}/${i})`
                      : (fills[face.zone] ?? "var(--color-enamel)")
                }
                stroke="var(--color-ink)"
                strokeWidth={face.zone && face.zone === picked ? 8 : 2.5}
                strokeLinejoin="miter"
              />
            </g>
          );
        })}
        {patterns.map((pattern) => (
          <g key={pattern.zone + pattern.layer + String(pattern.at[0]?.x)} className="pointer-events-none">
            {pattern.at.map((at) => (
              <path
                key={`${at.x} ${at.y}`}
                transform={`scale(${scale}) translate(${at.x} ${at.y})`}
                d={pattern.regions.map((r) => withHoles(r.outline, r.holes)).join("")}
                fillRule="evenodd"
                fill={
                  tiles[tileOf(pattern.zone, pattern.layer)]
                    ? `url(#${own}${tileOf(pattern.zone, pattern.layer)})`
                    : pattern.hex
                }
                stroke="var(--color-ink)"
                strokeWidth={1 / scale}
              />
            ))}
          </g>
        ))}
        {stamps.map((stamp) => (
          <g key={`${stamp.x} ${stamp.y}`} className="pointer-events-none">
            <rect x={stamp.x + 8} y={stamp.y + 8} width="132" height="46" fill="var(--color-enamel)" />
            <text x={stamp.x + 74} y={stamp.y + 44} textAnchor="middle" className="numeral" fontSize="36">
              {stamp.words}
            </text>
          </g>
        ))}
        {(small ? [] : drawing.labels).map((label) => (
          <text
            key={label.text}
            x={label.at.x * scale}
            y={label.at.y * scale + (drawing.callouts.length ? 104 : 40)}
            textAnchor="middle"
            className="narrow"
            fontSize="34"
            fill="var(--color-soft)"
          >
            {label.text}
          </text>
        ))}
        {(small ? [] : drawing.callouts).map((c) => (
          <Callout key={c.size} callout={c} scale={scale} typed={sizes[c.size]} onEdit={edit} />
        ))}
      </svg>
      {editing && field && (
        <div
          data-callout
          className="absolute z-10 w-[152px] border-2 border-ink bg-enamel p-2"
          style={{ left: editing.left, top: editing.top }}
          onKeyDown={(e) => (e.key === "Enter" || e.key === "Escape") && setEditing(null)}
          onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && setEditing(null)}
        >
          {field}
        </div>
      )}
    </div>
  );
}

interface CalloutProps {
  callout: PieceGeometry["callouts"][number];
  scale: number;
  typed: string | undefined;
  onEdit: (size: string, callout: SVGGElement) => void;
}

/** A size along an edge, to be pressed and typed. */
function Callout({ callout: c, scale, typed, onEdit }: CalloutProps) {
  const [x1, y1, x2, y2] = [c.start.x * scale, c.start.y * scale, c.end.x * scale, c.end.y * scale];
  const upright = c.side === "right" || c.side === "left";
  const off = c.side === "above" || c.side === "left" ? -22 : 22;
  const [dx, dy] = upright ? [off, 0] : [0, off];
  const tick = (x: number, y: number) => (upright ? `M${x + dx - 10} ${y}h20` : `M${x} ${y + dy - 10}v20`);
  const x = (x1 + x2) / 2 + dx * 1.6;
  const y = (y1 + y2) / 2 + dy * 1.4;
  // A target that a thumb hits.
  const target = upright
    ? { x: x - 50 + dx, y: y - 90, width: 100, height: 180 }
    : { x: x - 90, y: y - 50 + (c.side === "below" ? 20 : -20), width: 180, height: 100 };
  return (
    <g
      stroke="var(--color-ink)"
      strokeWidth="2.5"
      fill="none"
      className="cursor-pointer"
      role="button"
      tabIndex={0}
      aria-label={`Change ${c.size.replaceAll("_", " ")}, ${typed ?? "not given"}`}
      onClick={(e) => onEdit(c.size, e.currentTarget)}
      onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && onEdit(c.size, e.currentTarget)}
    >
      <rect {...target} fill="transparent" stroke="none" />
      <path d={`M${x1 + dx} ${y1 + dy}L${x2 + dx} ${y2 + dy}${tick(x1, y1)}${tick(x2, y2)}`} />
      <text
        x={x}
        y={y}
        dy={DROP[c.side] ?? 0}
        textAnchor="middle"
        transform={upright ? `rotate(${c.side === "left" ? -90 : 90} ${x} ${y})` : undefined}
        stroke="none"
        fill="var(--color-ink)"
        className="numeral"
        fontSize="46"
      >
        {typed ?? "?"}
      </text>
    </g>
  );
}

/** How far below its line a size is written, by the side it stands on. */
const DROP: Record<string, number> = { below: 38, above: -6 };
