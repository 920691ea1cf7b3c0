import { type PointerEvent, useRef, useState } from "react";
import type { Catalogue } from "../api/client";
import { CoreSample } from "../drawings/CoreSample";
import { moveLayer } from "../job/change";
import type { OpenJob } from "../job/useJob";
import { lasts, percent } from "../parts/say";

/** What a row takes before its section is drawn. */
const ROW = 64;

interface StackProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
  onBoundary: (above: string) => void;
}

/** The core sample, and beside each film its row: what it is, how it is put on, how long it is left. Top row, last coat. */
export function Stack({ open, catalogue, zone: index, layer: picked, onLayer, onBoundary }: StackProps) {
  const zone = open.job.zones[index];
  const planned = open.plan.zones.find((z) => z.zone === zone?.id);
  const list = useRef<HTMLOListElement>(null);
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  if (!zone) return null;
  const count = zone.layers.length;
  const section = planned?.section;
  const row_height = section?.row_height ?? ROW;
  const matching = section && section.bands.length === count;

  const minutes = (hours: number | null | undefined) => (hours == null ? null : hours * 60);

  /** The place in the stack a pointer is at; rows run from the last coat down to the first. */
  function placeAt(event: PointerEvent) {
    const top = list.current?.getBoundingClientRect().top ?? 0;
    const row = Math.floor((event.clientY - top) / row_height);
    return count - 1 - Math.min(count - 1, Math.max(0, row));
  }

  function move(from: number, to: number) {
    if (!zone || to < 0 || to >= count || to === from) return;
    moveLayer(open, zone, from, to);
    onLayer(to);
  }

  const rows = zone.layers
    .map((layer, i) => ({ layer, i, plan: planned?.layers.find((x) => x.layer === layer.id) }))
    .reverse();
  return (
    <div className="flex items-start">
      {matching ? (
        <CoreSample
          section={section}
          picked={zone.layers[picked]?.id ?? ""}
          onNotch={(notch) => onBoundary(notch.above)}
        />
      ) : (
        <div
          className="w-9 shrink-0 border-r-2 border-dashed border-line"
          style={{ height: count * row_height + 40 }}
        />
      )}
      <div className="min-w-0 grow">
        <ol ref={list} reversed aria-label="Layers, the last coat first">
          {rows.map(({ layer, i, plan }) => {
            const technique = catalogue.techniques.find((t) => t.slug === layer.technique);
            const recipe = catalogue.recipes.find((r) => r.slug === layer.recipe);
            const detail = [
              `wait ${lasts(minutes(plan?.wait_h))}`.replaceAll(" ", "\u00a0"), // first: never cut off
              technique?.name ?? "to be chosen when Lumso answers",
              layer.coats > 1 && `${layer.coats} coats`,
              layer.layout ? "laid out" : layer.touched < 0.95 && percent(layer.touched),
              layer.sandings.length > 0 && `then ${layer.sandings.map((s) => `P${s.grit}`).join(", ")}`,
            ].filter(Boolean);
            const landing = drag && drag.to === i && drag.from !== i;
            return (
              <li
                key={layer.id}
                style={{ height: row_height }}
                className={`flex items-stretch ${landing ? "outline-3 outline-dashed outline-ink" : ""} ${drag?.from === i ? "opacity-60" : ""}`}
              >
                <button
                  type="button"
                  aria-pressed={i === picked}
                  data-said
                  className="press -mt-0.5 min-w-0 grow overflow-hidden px-2 py-0.5 text-left"
                  onClick={() => onLayer(i)}
                  onKeyDown={(e) => {
                    if (!e.altKey || (e.key !== "ArrowUp" && e.key !== "ArrowDown")) return;
                    e.preventDefault();
                    move(i, e.key === "ArrowUp" ? i + 1 : i - 1);
                  }}
                  aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
                >
                  <span className="narrow line-clamp-2 text-base leading-tight">
                    {i + 1}. {(recipe?.name ?? layer.recipe).replace(", as bought", "")}
                  </span>
                  <span
                    className="narrow line-clamp-2 text-xs leading-tight font-normal"
                    title={detail.join(" · ")}
                  >
                    {detail.join(" · ")}
                  </span>
                </button>
                {count > 1 && (
                  <span
                    aria-hidden
                    title="Drag to another place in the stack"
                    className="flex w-8 shrink-0 cursor-grab print:hidden touch-none items-center justify-center select-none"
                    onPointerDown={(e) => {
                      e.currentTarget.setPointerCapture(e.pointerId);
                      setDrag({ from: i, to: i });
                    }}
                    onPointerMove={(e) => drag && setDrag({ ...drag, to: placeAt(e) })}
                    onPointerUp={() => {
                      if (drag) move(drag.from, drag.to);
                      setDrag(null);
                    }}
                    onPointerCancel={() => setDrag(null)}
                  >
                    <svg width="12" height="22" aria-hidden>
                      <path d="M0 5H12M0 11H12M0 17H12" stroke="currentColor" strokeWidth="2" />
                    </svg>
                  </span>
                )}
              </li>
            );
          })}
        </ol>
        <p className="narrow flex h-10 items-center px-2 text-sm font-semibold">
          {catalogue.grounds.find((g) => g.slug === zone.ground)?.name ?? zone.ground}
        </p>
      </div>
    </div>
  );
}
