import type { BenchOp } from "../api/client";
import type { Primary } from "./primary";
import { OVER, WORDS } from "./states";

/** A key beside the large one. */
const ASIDE =
  "press min-h-[84px] border-0 border-r-2 px-5 max-sm:min-h-[72px] max-sm:flex-1 max-sm:px-2 max-sm:text-sm max-sm:border-b-2";

interface FootProps {
  op: BenchOp | undefined;
  primary: Primary | null;
  /** Whether the large key has meant the same for long enough. */
  steady: boolean;
  wrong: boolean;
  onWrong: () => void;
  onLeaveOut: (op: BenchOp) => void;
  onTakeBack: (op: BenchOp) => void;
}

/** The keys along the foot: what is wrong, what is left out or taken back, and the large one. */
export function Foot({ op, primary, steady, wrong, onWrong, onLeaveOut, onTakeBack }: FootProps) {
  return (
    <footer className="flex shrink-0 flex-wrap items-stretch border-t-2 border-ink bg-steel">
      {op && !OVER.has(op.state) && (
        <>
          <button type="button" className={ASIDE} onClick={onWrong} aria-expanded={wrong}>
            Something is wrong
          </button>
          <button type="button" className={ASIDE} onClick={() => onLeaveOut(op)}>
            Leave it out
          </button>
        </>
      )}
      {op && op.state !== "planned" && op.event && (
        <button type="button" className={ASIDE} onClick={() => onTakeBack(op)}>
          Take back “{WORDS[op.state]}”
        </button>
      )}
      {primary && (
        <button
          type="button"
          className="press press-strong min-h-[84px] grow border-0 px-8 text-xl max-sm:basis-full"
          disabled={!primary.can}
          aria-disabled={!primary.can || !steady}
          onClick={() => steady && primary.run()}
        >
          {primary.says}
        </button>
      )}
    </footer>
  );
}
