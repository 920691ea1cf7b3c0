import type { BenchOp, PotNow, ScaleNow, Timer } from "../api/client";
import { Failure } from "../parts/Failure";
import type { Acts } from "./acts";
import { Lines } from "./Pouring";
import { ScalePanel } from "./ScalePanel";
import { Timers } from "./Timers";
import { WentPanel } from "./Went";

interface BesideProps {
  /** The pot that is being mixed; undefined for none. */
  mixed: PotNow | undefined;
  /** What was laid last. */
  laid: BenchOp | undefined;
  timers: Timer[];
  minute: () => number;
  scale: ScaleNow | null;
  acts: Acts;
  /** Why the screen may go dark; "" where it does not. */
  awake: string;
  /** Whether no sound may be made yet. */
  quiet: boolean;
  reading: { can: boolean; on: boolean; toggle: () => void };
}

/** What stands beside what is done now: the pot's lines, how the last coat went, what runs, the scale. */
export function Beside({ mixed, laid, timers, minute, scale, acts, awake, quiet, reading }: BesideProps) {
  return (
    <div className="flex min-w-0 flex-col gap-4">
      {mixed?.plan && (
        <Lines
          pot={mixed}
          onTakeBack={acts.takeBackPour}
          onSettle={(times) => acts.act("The size of the pot", { act: "settled", pot: mixed.pot.pot, times })}
        />
      )}
      {/* Above what comes with the server's answer: it does not move under the finger. */}
      {laid && (
        <WentPanel
          key={laid.operation.id}
          op={laid}
          onAct={(words, what) => acts.act(words, what, laid.operation.id)}
        />
      )}
      <Timers
        timers={timers}
        minute={minute}
        onSaw={(timer: Timer, dry, more) =>
          acts.act(
            dry ? `Dry: ${timer.says}` : `Not dry yet: ${timer.says}`,
            { act: "saw dry", constraint: timer.id, dry, more_min: more },
            timer.first,
          )
        }
      />
      {scale?.simulated && scale.state === "listening" && <ScalePanel scale={scale} />}
      <div className="mt-auto">
        {reading.can && (
          <button
            type="button"
            className="press mb-2 min-h-[56px]"
            aria-pressed={reading.on}
            onClick={reading.toggle}
          >
            Read to me
          </button>
        )}
        {awake && <p className="narrow text-sm text-soft">{awake}</p>}
        <p className="narrow text-sm text-soft">
          {quiet ? "Touch the screen once, then timers ring. " : "Timers ring while this page is open. "}A
          sleeping tablet cannot ring.
        </p>
        {acts.error && <Failure error={acts.error} />}
      </div>
    </div>
  );
}
