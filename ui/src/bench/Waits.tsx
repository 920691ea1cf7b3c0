import { useEffect, useState } from "react";
import type { BenchOp } from "../api/client";
import { clockTime } from "../parts/say";
import { OVER } from "./states";
import { countdown } from "./Timers";

/** A wait that is not over yet, as large as can be. */
export function Waits({ op, minute }: { op: BenchOp; minute: () => number }) {
  const [now, setNow] = useState(minute);
  useEffect(() => {
    const every = window.setInterval(() => setNow(minute()), 500);
    return () => window.clearInterval(every);
  }, [minute]);
  if (op.state === "begun" || OVER.has(op.state)) return null;
  if (op.ready_min !== null && op.ready_min > now)
    return (
      <div role="timer" className="mb-3 border-l-8 border-line pl-4">
        <p className="text-lg font-semibold">
          Leave it until {clockTime(op.ready_min)}. {op.waits_for}
        </p>
        <p className="numeral text-[clamp(4rem,10vw,7rem)]">{countdown(op.ready_min - now)}</p>
      </div>
    );
  if (op.ready_min === null && op.waits_for)
    return <p className="mb-3 border-l-8 border-line pl-4 text-lg font-semibold">{op.waits_for}</p>;
  return null;
}
