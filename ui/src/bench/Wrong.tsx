import type { BenchOp } from "../api/client";
import { clockTime, lasts } from "../parts/say";

/** What goes wrong with this, what is done about it while there is time, and what that costs. */
export function Wrong(props: {
  op: BenchOp;
  job: string;
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
      {props.mixing && <ToLadder onLadder={props.onLadder} />}
      {op.rescues.length > 0 && !props.mixing && (
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
            <li key={r.sign + r.wet} className="flow-root border-b border-line py-2">
              {r.flaw && <FlawSeen id={props.job} of={op.operation} flaw={r.flaw} />}
              <strong>{r.sign[0]?.toUpperCase() + r.sign.slice(1)}</strong>
              {r.wet && (
                <span
                  className={`block first-letter:uppercase ${wet !== null && wet <= now ? "text-soft" : ""}`}
                >
                  {props.mixing ? "" : "While it is wet: "}
                  {r.wet}.
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
      ) : (
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

interface FlawProps {
  id: string;
  of: BenchOp["operation"];
  flaw: string;
}

/** How it looks on this layer, in its own colours: one points instead of describing. */
function FlawSeen({ id, of, flaw }: FlawProps) {
  const asked = new URLSearchParams({ job: id, zone: of.zone, layer: of.layer, px: "160" });
  return (
    <img
      src={`/api/rehearsal/flaws/${flaw}?${asked}`}
      alt=""
      loading="lazy"
      className="float-left mr-3 mb-1 size-24 border border-ink bg-enamel"
    />
  );
}

/** Too thin and too thick are for the words a mix is judged by. */
function ToLadder({ onLadder }: { onLadder: (() => void) | undefined }) {
  if (onLadder)
    return (
      <button type="button" className="press press-strong mt-2 min-h-[72px] px-5" onClick={onLadder}>
        Too thin or too thick: say what it looks like
      </button>
    );
  return (
    <p className="mt-1">
      <strong>Too thin or too thick:</strong> pour all of it first, stir, then say what it looks like.
    </p>
  );
}
