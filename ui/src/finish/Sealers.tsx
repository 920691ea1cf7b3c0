import type { Advice, Remedy } from "../api/client";
import { lasts } from "../parts/say";

/** What is said of a sealer here. */
export const VERDICT = { best: "best here", "will do": "will do", "not here": "not here" };

type Sealer = Advice["sealers"][number];

interface SealersProps {
  advice: Advice;
  /** Puts it on; not given where there is no piece to put it on. */
  onTake?: (remedy: Remedy) => void;
}

/** Which sealer: the good answers with the wait each wants; those that will not do a press away. */
export function Sealers({ advice, onTake }: SealersProps) {
  const good = advice.sealers.filter((s) => s.verdict !== "not here");
  const rest = advice.sealers.filter((s) => s.verdict === "not here");
  return (
    <section>
      <h2 className="wide font-bold">Which sealer?</h2>
      {advice.sealer_change && <p className="said my-2 font-semibold">{advice.sealer_change}</p>}
      {advice.sealer_asks && <p className="said my-2">{advice.sealer_asks}</p>}
      <ul>
        {good.map((s, i) => (
          <Line key={s.recipe} sealer={s} first={i === 0} {...(onTake && { onTake })} />
        ))}
      </ul>
      {rest.length > 0 && (
        <details>
          <summary className="min-h-11 py-2.5">
            {rest.length === 1 ? "One that will not do here" : `${rest.length} that will not do here`}, and
            why
          </summary>
          <ul>
            {rest.map((s) => (
              <Line key={s.recipe} sealer={s} first={false} />
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Line({
  sealer: s,
  first,
  onTake,
}: {
  sealer: Sealer;
  first: boolean;
  onTake?: (remedy: Remedy) => void;
}) {
  const { remedy } = s;
  return (
    <li className="grid grid-cols-[1fr_auto] items-start gap-3 border-t border-line py-2">
      <div>
        <strong className={`block first-letter:uppercase ${first ? "text-lg" : ""}`}>{s.name}</strong>
        <span className="narrow text-sm">
          {s.on ? "on it now, " : ""}
          {VERDICT[s.verdict]}
          {s.gloss && `, ${s.gloss}`}
          {s.ambers && ", yellows a little"}
          {s.wait_h !== null && <strong>, after {lasts(s.wait_h * 60)} of drying</strong>}
        </span>
        {s.against.map((a) => (
          <p key={a.says} className="narrow text-sm">
            <span className="font-semibold">{a.grade === "good to know" ? "Good to know" : a.grade}:</span>{" "}
            {a.says}
          </p>
        ))}
      </div>
      {onTake && remedy && !s.on && (
        <button
          type="button"
          className={`press text-sm ${first ? "press-strong" : ""}`}
          aria-label={remedy.says}
          onClick={() => onTake(remedy)}
        >
          Take it
        </button>
      )}
    </li>
  );
}
