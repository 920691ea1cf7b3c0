import type { Rehearsed, When } from "../api/rehearsal";
import { lasts } from "../parts/say";

const W = 1000;
const H = 86;

/** When the next thing should be done by the plan, with how far its times lie apart; and now. */
export function WindowStrip({ seen }: { seen: Rehearsed }) {
  const { span, minute } = seen;
  const { opens, closes } = span;
  if (!opens && !closes) return <p className="text-soft">Nothing is waited for: it can be done now.</p>;
  const ends = [minute, ...[opens, closes].flatMap((w) => (w ? [w.least_min, w.most_min] : []))];
  const [first, last] = [Math.min(...ends), Math.max(...ends)];
  const wide = Math.max(last - first, 1);
  const x = (m: number) => 60 + ((m - first) / wide) * (W - 120);
  return (
    <figure className="m-0">
      <svg viewBox={`0 0 ${W} ${H}`} className="w-full max-sm:hidden" aria-hidden>
        <path d={`M60 58H${W - 60}`} stroke="var(--color-line)" strokeWidth="3" />
        {opens && <Band when={opens} x={x} says="from" />}
        {closes && <Band when={closes} x={x} says="until" />}
        <path d={`M${x(minute)} 16V76`} stroke="var(--color-ink)" strokeWidth="6" />
        <text x={x(minute)} y="12" textAnchor="middle" fontSize="20" className="narrow font-semibold">
          now
        </text>
      </svg>
      <figcaption className="narrow text-sm">{planSays(seen)}</figcaption>
    </figure>
  );
}

function Band({ when, x, says }: { when: When; x: (minute: number) => number; says: string }) {
  const [from, to, at] = [x(when.least_min), x(when.most_min), x(when.at_min)];
  return (
    <>
      <rect
        x={from}
        y="48"
        width={Math.max(to - from, 4)}
        height="20"
        fill="var(--color-tape)"
        stroke="var(--color-ink)"
      />
      <path d={`M${at} 42V74`} stroke="var(--color-ink)" strokeWidth="3" />
      <text x={at} y="38" textAnchor="middle" fontSize="20" className="narrow">
        {says}
      </text>
    </>
  );
}

/** What the plan says of it, from now. */
export function planSays({ span, minute }: Rehearsed): string {
  const from = span.opens && said(span.opens, minute, "ready");
  const until = span.closes && said(span.closes, minute, "too late");
  return `By the plan ${[from, until].filter(Boolean).join("; ")}.`;
}

function said(when: When, minute: number, what: string): string {
  if (when.most_min <= minute) return `${what} by now`;
  const away = (m: number) => lasts(Math.max(0, m - minute));
  if (when.at_min <= minute) return `${what} by now, at the latest in ${away(when.most_min)}`;
  return `${what} in ${away(when.at_min)}, likely ${away(when.least_min)} to ${away(when.most_min)}`;
}
