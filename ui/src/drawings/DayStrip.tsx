import { useEffect, useId, useRef } from "react";
import type { Strip } from "../api/client";

type Bar = Strip["bars"][number];

interface Props {
  strip: Strip;
  /** The operation that is picked. */
  picked: string;
  onPick: (job: string, operation: string) => void;
}

/** The strip of days: what is done in black, what is wet hatched, what dries a line, hours nobody is there folded. */
export function DayStrip({ strip, picked, onPick }: Props) {
  const id = useId().replaceAll(":", "");
  const frame = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only once, to where one is
  useEffect(() => {
    frame.current?.scrollTo({ left: Math.max(0, strip.now_x - 24) });
  }, []);
  const air = strip.air.map((p) => `${p.x},${p.y}`).join(" ");
  return (
    <figure className="flex border-y-2 border-ink bg-enamel" aria-label="The strip of days">
      <ul className="w-28 shrink-0 border-r-2 border-ink sm:w-48" aria-label="Lanes">
        <li className="narrow flex items-end px-2 text-xs text-soft" style={{ height: 84 }}>
          air, °C
        </li>
        {strip.lanes.map((lane) => (
          <li
            key={`${lane.job} ${lane.zone}`}
            className="narrow flex flex-col justify-center overflow-hidden border-t border-line px-2 leading-tight"
            style={{ height: strip.lane_height }}
          >
            <span className="truncate text-sm font-semibold">{lane.says}</span>
            {lane.of && <span className="truncate text-xs text-soft">{lane.of}</span>}
          </li>
        ))}
      </ul>
      <section
        ref={frame}
        className="min-w-0 grow overflow-x-auto"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached to be scrolled
        tabIndex={0}
        aria-label="Days and hours"
      >
        {/* biome-ignore lint/a11y/useSemanticElements: a drawing with parts to press is no form */}
        <svg
          width={strip.width + 8}
          height={strip.height + 4}
          role="group"
          aria-label="What is done and what dries, by zone; the list below says the same"
          className="block"
        >
          <defs>
            <pattern
              id={`${id}-wet`}
              width="5"
              height="5"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <path d="M0 0V5" stroke="var(--color-ink)" strokeWidth="2.4" />
            </pattern>
            <pattern id={`${id}-shut`} width="7" height="7" patternUnits="userSpaceOnUse">
              <path d="M0 7L7 0" stroke="var(--color-line)" strokeWidth="1" />
            </pattern>
            <pattern id={`${id}-begun`} width="4" height="4" patternUnits="userSpaceOnUse">
              <path d="M0 1H4" stroke="var(--color-ink)" strokeWidth="2" />
            </pattern>
          </defs>
          {strip.stretches.map((s) => (
            <rect
              key={s.x}
              x={s.x}
              y={34}
              width={s.width}
              height={strip.height - 34}
              fill={
                s.kind === "visit"
                  ? "var(--color-enamel)"
                  : s.kind === "open"
                    ? "var(--color-steel)"
                    : `url(#${id}-shut)`
              }
              stroke="var(--color-line)"
              strokeWidth="0.5"
            />
          ))}
          {strip.lanes.map((lane) => (
            <path
              key={`${lane.job} ${lane.zone}`}
              d={`M0 ${lane.y}H${strip.width}`}
              stroke="var(--color-line)"
              strokeWidth="0.6"
            />
          ))}
          <g className="narrow" fontSize="14" fill="var(--color-ink)">
            {strip.days.map((m) => (
              <text key={m.x} x={m.x + 2} y={13} fontWeight="700">
                {m.says}
              </text>
            ))}
            {strip.hours.map((m) => (
              <g key={m.x}>
                <path d={`M${m.x} 28v8`} stroke="var(--color-ink)" />
                <text x={m.x + 2} y={29} fontSize="12">
                  {m.says}
                </text>
              </g>
            ))}
          </g>
          <path
            d={`M0 ${strip.coldest_y}H${strip.width}`}
            stroke="var(--color-ink)"
            strokeDasharray="2 4"
            strokeWidth="0.8"
          />
          <polyline points={air} fill="none" stroke="var(--color-ink)" strokeWidth="1.4" />
          {strip.air.map((p, i) => {
            const next = strip.air[i + 1];
            if (p.fit || !next || next.x <= p.x) return null;
            return (
              <rect
                key={p.x}
                x={p.x}
                y={46}
                width={next.x - p.x}
                height={36}
                fill={`url(#${id}-wet)`}
                opacity="0.5"
              />
            );
          })}
          {strip.bars.map((bar) => (
            <Drawn
              key={`${bar.kind} ${bar.job} ${bar.operation} ${bar.state} ${bar.y}`}
              {...{ bar, id, picked, onPick }}
              lane={strip.lane_height}
            />
          ))}
          <path d={`M${strip.now_x} 34V${strip.height}`} stroke="var(--color-ink)" strokeWidth="3" />
          <text x={strip.now_x + 4} y={strip.height - 4} fontSize="12" fontWeight="700">
            now
          </text>
        </svg>
      </section>
    </figure>
  );
}

interface DrawnProps extends Omit<Props, "strip"> {
  bar: Bar;
  id: string;
  lane: number;
}

function Drawn({ bar, id, lane, picked, onPick }: DrawnProps) {
  const { x, y, width } = bar;
  const lit = picked === `${bar.job}|${bar.operation}`;
  if (bar.kind === "hands")
    return (
      // biome-ignore lint/a11y/useSemanticElements: a part of a drawing cannot be a button
      <g
        role="button"
        tabIndex={-1}
        aria-label={bar.says}
        onClick={() => onPick(bar.job, bar.operation)}
        onKeyDown={(e) => e.key === "Enter" && onPick(bar.job, bar.operation)}
        className="cursor-pointer"
      >
        <title>{bar.says}</title>
        <rect x={x - 6} y={y} width={width + 12} height={lane} fill="transparent" />
        <rect
          x={x}
          y={y + 6}
          width={width}
          height={lane - 15}
          fill={
            bar.state === "done"
              ? "var(--color-enamel)"
              : bar.state === "begun"
                ? `url(#${id}-begun)`
                : "var(--color-ink)"
          }
          stroke="var(--color-ink)"
          strokeWidth={lit ? 5 : 1.5}
        />
        {bar.state === "done" && (
          <path
            d={`M${x + 1} ${y + lane / 2 - 2}l3 4l5 -9`}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth="2"
          />
        )}
        {bar.critical && (
          <path d={`M${x} ${y + lane - 4}h${width}`} stroke="var(--color-ink)" strokeWidth="4" />
        )}
        {bar.pinned && <path d={`M${x} ${y + 2}h10l-5 7z`} fill="var(--color-ink)" />}
      </g>
    );
  if (bar.kind === "wet")
    return (
      <g>
        <title>{bar.says}</title>
        <rect
          x={x}
          y={y + 11}
          width={width}
          height={lane - 25}
          fill={`url(#${id}-wet)`}
          stroke="var(--color-ink)"
          strokeWidth="0.8"
        />
      </g>
    );
  if (bar.kind === "dry")
    return (
      <g>
        <title>{bar.says}</title>
        <path
          d={`M${x} ${y + lane / 2 - 1}h${width}m0 -5v10`}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth={bar.critical ? 3 : 1.2}
        />
      </g>
    );
  return (
    <g>
      <title>{bar.says}</title>
      <path d={`M${x} ${y + 3}h${width}v6`} fill="none" stroke="var(--color-ink)" strokeDasharray="3 2" />
    </g>
  );
}
