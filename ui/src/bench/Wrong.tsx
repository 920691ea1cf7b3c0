import type { BenchOp } from "../api/client";
import { clockTime, lasts } from "../parts/say";

/** What goes wrong with this, what is done about it while there is time, and what that costs. */
export function Wrong(props: {
  op: BenchOp;
  /** Whether a pot is being mixed: then it is what stands in the pot that is wrong. */
  mixing: boolean;
  /** To the words a mix is judged by; undefined while something is still to be poured. */
  onLadder: (() => void) | undefined;
  minute: () => number;
  onWrong: () => void;
  onClose: () => void;
}) {
  const { op } = props;
  const now = props.minute();
  const wet = op.rescues[0]?.wet_until_min ?? null;
  const dry = op.rescues[0]?.dry_from_min ?? null;
  return (
    <section
      aria-labelledby="wrong"
      className="max-h-[55dvh] overflow-y-auto border-t-2 border-ink bg-steel p-4"
    >
      <h2 id="wrong" className="wide text-lg font-bold">
        What is wrong?
      </h2>
      {props.mixing && <InThePot onLadder={props.onLadder} />}
      {op.rescues.length > 0 && (
        <p>
          {wet === null
            ? "How long it stays open: its label."
            : wet > now
              ? `It stays open for about ${lasts(wet - now)} yet.`
              : "It is no longer open: leave it alone until it is dry."}
          {dry !== null && dry > now && ` Dry to the touch about ${clockTime(dry)}, an estimate.`}
        </p>
      )}
      {op.rescues.length ? (
        <ul className="mt-1 grid gap-x-6 md:grid-cols-2">
          {op.rescues.map((r) => (
            <li key={r.sign + r.wet} className="border-b border-line py-2">
              <strong>{r.sign[0]?.toUpperCase() + r.sign.slice(1)}</strong>
              {r.wet && (
                <span className={`block ${wet !== null && wet <= now ? "text-soft" : ""}`}>
                  While it is wet: {r.wet}.
                </span>
              )}
              {r.dry && <span className="block">Once it is dry: {r.dry}.</span>}
              {r.costs && <span className="narrow block text-sm">It costs {r.costs}.</span>}
            </li>
          ))}
        </ul>
      ) : op.operation.rescues.length ? (
        <ul className="mt-1">
          {op.operation.rescues.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      ) : props.mixing ? null : (
        <p>Nothing is known that usually goes wrong here.</p>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="button" className="press min-h-[72px] px-5" onClick={props.onWrong}>
          Gone wrong: put it right, and do it again
        </button>
        <button type="button" className="press min-h-[72px] px-5" onClick={props.onClose}>
          It is well again
        </button>
      </div>
    </section>
  );
}

const IN_THE_POT = [
  [
    "Lumps",
    "Press them against the side with the stick; what stays, strain out. Powder goes into the liquid, never the other way round.",
  ],
  [
    "Wrong colour",
    "Tints go in by drops: dry a dab on card before the next, wet paint tells nothing. Too dark: mix the base afresh and add this to it.",
  ],
  [
    "Too much poured",
    "Pour nothing back. Note what went in: the rest is planned again so that the shares hold, or take it out while it lies on top.",
  ],
  [
    "Skin or smell",
    "A skin is lifted off whole. What smells foul is spoilt: throw it away, as its label says.",
  ],
] as const;

/** What goes wrong while a pot is mixed; too thin and too thick are for the words it is judged by. */
function InThePot({ onLadder }: { onLadder: (() => void) | undefined }) {
  return (
    <>
      {onLadder ? (
        <button type="button" className="press press-strong mt-2 min-h-[72px] px-5" onClick={onLadder}>
          Too thin or too thick: say what it looks like
        </button>
      ) : (
        <p className="mt-1">
          <strong>Too thin or too thick:</strong> pour all of it first, stir, then say what it looks like.
        </p>
      )}
      <ul className="mt-1 grid gap-x-6 md:grid-cols-2">
        {IN_THE_POT.map(([sign, does]) => (
          <li key={sign} className="border-b border-line py-2">
            <strong>{sign}</strong>
            <span className="block">{does}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
