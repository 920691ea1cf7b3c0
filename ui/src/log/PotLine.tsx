import { Link } from "react-router";
import type { PotSummary } from "../api/client";
import { clockTime, grams, ml, percent } from "../parts/say";

const STATES: Record<PotSummary["state"], string> = {
  pouring: "being poured",
  stirred: "in use",
  kept: "",
  empty: "used up",
  discarded: "thrown away",
};

/** How a pot stands, in words. */
export const potState = (pot: PotSummary): string =>
  pot.state === "kept" ? `${ml(pot.left_ml)} left` : STATES[pot.state];

/** A batch in a line: its colours in their shares, what it was for, what is left. */
export function PotLine({ pot }: { pot: PotSummary }) {
  const verdicts = [...new Set(pot.went.map((w) => w.verdict).filter((v) => v))];
  return (
    <li className="border-b border-line">
      <Link
        to={`/log/pots/${pot.pot}`}
        className="grid min-h-[64px] grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-3 py-2 hover:bg-enamel sm:grid-cols-[5rem_minmax(0,1fr)_minmax(0,16rem)_8rem]"
      >
        <Shares pot={pot} />
        <span className="min-w-0">
          <span className="font-bold">{pot.name}</span>{" "}
          {pot.colour && <span className="bg-tape px-1 text-sm font-semibold">{pot.colour}</span>}
          <span className="narrow block truncate text-sm">
            {pot.job_name}
            {pot.zones.length > 0 && `: ${pot.zones.join(", ")}`}
          </span>
        </span>
        <span className="narrow min-w-0 text-sm max-sm:col-start-2">
          {pot.parts.map((p) => `${p.name.toLowerCase()} ${percent(p.share)}`).join(" · ")}
          {pot.rescued > 0 && `, set right ${pot.rescued} ×`}
          {verdicts.length > 0 && <strong className="block">{verdicts.join(", ")}</strong>}
        </span>
        <span className="text-right text-sm max-sm:col-start-2 max-sm:text-left">
          <span className="numeral text-base">{grams(pot.mixed_g)}</span>
          <span className="narrow block">{clockTime(pot.begun_min)}</span>
          <span className="narrow block font-semibold">{potState(pot)}</span>
        </span>
      </Link>
    </li>
  );
}

/** What went in, as a jar that lies down: each part as wide as its share. */
export function Shares({ pot, tall = false }: { pot: PotSummary; tall?: boolean }) {
  let at = 0;
  return (
    <svg
      aria-hidden
      viewBox="0 0 100 40"
      preserveAspectRatio="none"
      className={`w-full border-2 border-ink ${tall ? "h-16" : "h-9"}`}
    >
      {pot.parts.map((p) => {
        const x = at * 100;
        at += p.share;
        return (
          <g key={`${p.component}${p.colour}`}>
            <rect x={x} y={0} width={p.share * 100} height={40} fill={p.hex || "var(--color-steel)"} />
            <line x1={x} x2={x} y1={0} y2={40} stroke="var(--color-ink)" strokeWidth="1" />
          </g>
        );
      })}
    </svg>
  );
}
