import { useEffect, useRef, useState } from "react";
import type { Timer } from "../api/client";
import { clockTime, lasts } from "../parts/say";

/** What a timer comes to at a minute. */
export function standing(
  timer: Timer,
  now: number,
): { ends: number | null; phase: "runs" | "open" | "over" } {
  if (timer.opens_min === null) return { ends: null, phase: "runs" };
  if (timer.kind !== "life" && now < timer.opens_min) return { ends: timer.opens_min, phase: "runs" };
  if (timer.closes_min !== null && now < timer.closes_min) return { ends: timer.closes_min, phase: "open" };
  return { ends: null, phase: "over" };
}

const says = (timer: Timer, phase: "runs" | "open" | "over"): string => {
  if (timer.kind === "life") return phase === "over" ? "past using" : "good for";
  if (phase === "runs") return timer.opens_min === null ? "only its label says" : "leave it";
  if (phase === "open") return "go on within";
  return timer.closes_min === null ? "ready" : "closed";
};

/** Hours, minutes and seconds that are left, to be read across a bench. */
export function countdown(minutes: number): string {
  const seconds = Math.max(0, Math.round(minutes * 60));
  if (seconds >= 48 * 3600) return lasts(minutes);
  const two = (n: number) => String(n).padStart(2, "0");
  const hours = Math.floor(seconds / 3600);
  const rest = `${two(Math.floor((seconds % 3600) / 60))}:${two(seconds % 60)}`;
  return hours ? `${hours}:${rest}` : rest;
}

/** Rings once for each timer that opens or closes while it is looked at. */
export function useRings(timers: Timer[], minute: () => number, ring: () => void): void {
  const before = useRef(new Map<string, string>());
  useEffect(() => {
    const look = () => {
      const now = minute();
      for (const timer of timers) {
        const { phase } = standing(timer, now);
        const had = before.current.get(timer.id);
        if (had !== undefined && had !== phase && timer.opens_min !== null) ring();
        before.current.set(timer.id, phase);
      }
    };
    look();
    const every = window.setInterval(look, 500);
    return () => window.clearInterval(every);
  }, [timers, minute, ring]);
}

interface Props {
  timers: Timer[];
  minute: () => number;
  onSaw: (timer: Timer, dry: boolean, more: number) => void;
}

/** All that runs: the soonest first, each with what opens or closes, and how to move it by what is seen. */
export function Timers({ timers, minute, onSaw }: Props) {
  const [now, setNow] = useState(minute);
  useEffect(() => {
    const every = window.setInterval(() => setNow(minute()), 500);
    return () => window.clearInterval(every);
  }, [minute]);
  if (!timers.length) return null;
  return (
    <section aria-labelledby="timers" className="border-t-2 border-ink pt-2">
      <h2 id="timers" className="wide text-lg font-bold">
        What runs
      </h2>
      <ul>
        {timers.map((timer) => (
          <One key={timer.id} timer={timer} now={now} onSaw={onSaw} />
        ))}
      </ul>
    </section>
  );
}

function One({ timer, now, onSaw }: { timer: Timer; now: number; onSaw: Props["onSaw"] }) {
  const [open, setOpen] = useState(false);
  const { ends, phase } = standing(timer, now);
  const waits = timer.kind !== "life" && phase === "runs";
  return (
    <li className="border-b border-line py-2">
      <div className="flex items-baseline justify-between gap-3">
        <span className="narrow font-semibold">{says(timer, phase)}</span>
        {ends !== null && (
          <span className={`numeral text-2xl ${phase === "open" ? "border-b-4 border-ink" : ""}`}>
            {countdown(ends - now)}
          </span>
        )}
      </div>
      <p className="text-sm">
        {timer.zone && <span className="mr-1.5 bg-steel px-1">{timer.zone}</span>}
        {timer.says}
        {ends !== null && `: ${clockTime(ends)}`}
      </p>
      {timer.trouble && <p className="text-sm font-semibold">{timer.trouble}</p>}
      {phase === "over" && timer.remedy && <p className="text-sm font-semibold">Now: {timer.remedy}.</p>}
      {timer.moved && <p className="narrow text-sm text-soft">As you saw it: {timer.moved}.</p>}
      {waits && timer.why && <p className="narrow text-sm text-soft">{timer.why}</p>}
      {(waits || (timer.kind === "wait" && phase === "over")) && (
        <div className="mt-1 flex flex-wrap gap-2">
          {!open && (
            <button type="button" className="press" onClick={() => setOpen(true)}>
              It looks otherwise
            </button>
          )}
          {open && (
            <>
              {waits && (
                <button type="button" className="press" onClick={() => onSaw(timer, true, 0)}>
                  Dry by now
                </button>
              )}
              {[20, 60].map((more) => (
                <button
                  key={more}
                  type="button"
                  className="press"
                  onClick={() => {
                    setOpen(false);
                    onSaw(timer, false, more);
                  }}
                >
                  Not dry: {more === 60 ? "1 h" : `${more} min`} more
                </button>
              ))}
            </>
          )}
        </div>
      )}
    </li>
  );
}
