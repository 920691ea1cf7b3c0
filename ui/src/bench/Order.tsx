import type { BenchOp } from "../api/client";
import { OVER, WORDS } from "./states";

/** The order of work as a rule: a tick for each operation, what is done filled. */
export function Rule({ operations, at }: { operations: BenchOp[]; at: number }) {
  const width = 1000 / Math.max(operations.length, 1);
  return (
    <svg aria-hidden viewBox="0 0 1000 26" preserveAspectRatio="none" className="h-5 w-full">
      {operations.map((o, i) => (
        <g key={o.operation.id}>
          {OVER.has(o.state) && (
            <rect x={i * width} y={8} width={width} height={18} fill="var(--color-ink)" />
          )}
          {i === at && (
            <rect
              x={i * width}
              y={0}
              width={width}
              height={26}
              fill="none"
              stroke="var(--color-ink)"
              strokeWidth="5"
            />
          )}
          <line x1={i * width} x2={i * width} y1={8} y2={26} stroke="var(--color-ink)" strokeWidth="2" />
        </g>
      ))}
    </svg>
  );
}

/** Every operation of the job, to go to. */
export function List(props: { operations: BenchOp[]; at: number; onPick: (o: BenchOp) => void }) {
  return (
    <ol className="max-h-[50dvh] overflow-y-auto border-b-2 border-ink bg-steel">
      {props.operations.map((o, i) => (
        <li key={o.operation.id}>
          <button
            type="button"
            aria-current={i === props.at ? "step" : undefined}
            className="flex min-h-[56px] w-full items-baseline gap-3 border-b border-line px-4 py-2 text-left"
            onClick={() => props.onPick(o)}
          >
            <span className="numeral w-8 text-right">{i + 1}</span>
            {o.operation.zone_name && (
              <span className="bg-enamel px-1.5 text-sm">{o.operation.zone_name}</span>
            )}
            <span className={`grow ${i === props.at ? "font-bold" : ""}`}>{o.operation.says}</span>
            <span className="narrow text-sm font-semibold">{WORDS[o.state] ?? ""}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
