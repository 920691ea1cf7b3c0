import type { Advice, Remedy } from "../api/client";
import { useAdvice } from "../api/queries";
import { changeLayer } from "../job/change";
import { stackEdit } from "../job/edits";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { say } from "../parts/say";
import { Sealers } from "./Sealers";

/** The advisers: they try things out on this zone with the checker's own rules. */
export function AdvicePanel({ open, zone: index }: { open: OpenJob; zone: number }) {
  const zone = open.job.zones[index];
  const asked = useAdvice(open.job, zone?.id ?? "");
  if (asked.error) return <Failure error={asked.error} onRetry={() => void asked.refetch()} />;
  const advice = asked.data;
  if (!zone || !advice) return <p className="text-soft">Trying things out…</p>;
  const take = (remedy: Remedy) =>
    zone && open.decide(remedy.says.toLowerCase(), stackEdit(zone.id, remedy.changes));
  return (
    <div className="flex flex-col gap-5">
      <Sealers advice={advice} onTake={(remedy) => void take(remedy)} />
      <PrepAdvice advice={advice} />
      {advice.coats.length > 0 && (
        <section>
          <h2 className="wide font-bold">How many coats to cover?</h2>
          <ul>
            {advice.coats.map((c) => {
              const at = zone.layers.findIndex((l) => l.id === c.layer);
              return (
                <li
                  key={c.layer}
                  className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line py-2"
                >
                  <svg width="44" height="24" aria-hidden>
                    <rect width="44" height="24" fill={c.over_hex} stroke="var(--color-ink)" />
                    <rect x="22" width="22" height="24" fill={c.hex} stroke="var(--color-ink)" />
                  </svg>
                  <span className="grow">
                    {c.name} over {c.over.toLowerCase()}:{" "}
                    <strong>
                      {c.coats === null
                        ? "more than a dozen; a grounding colour first"
                        : `about ${c.at_most === c.coats ? c.coats : `${c.coats} to ${c.at_most ?? "more than a dozen"}`} ${c.at_most === 1 ? "coat" : "coats"}`}
                    </strong>
                    <span className="narrow block text-sm text-soft">
                      Counted as {c.colour_class}. An estimate: make a test board.
                    </span>
                  </span>
                  {c.coats !== null && c.coats !== c.planned && c.coats <= 12 && (
                    <button
                      type="button"
                      className="press text-sm"
                      onClick={() =>
                        open.edit((job) =>
                          changeLayer(job, index, at, (l) => ({ ...l, coats: c.coats ?? l.coats })),
                        )
                      }
                    >
                      {c.planned} now, take {c.coats}
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
        </section>
      )}
      {advice.sag.length > 0 && (
        <section>
          <h2 className="wide font-bold">Will it stay up?</h2>
          <ul>
            {advice.sag.map((s) => (
              <li key={s.layer} className="border-t border-line py-2">
                {s.name}: stands {say(s.peak_mm)} mm, holds {say(s.holds_mm)} mm on an upright face.{" "}
                <strong>
                  {s.slides ? "It will slide." : s.upright ? "It stays." : "It lies flat: no matter."}
                </strong>
              </li>
            ))}
          </ul>
        </section>
      )}
      <GritAdvice advice={advice} />
    </div>
  );
}

/** What the rules would have done to the ground before this stack. */
export function PrepAdvice({ advice }: { advice: Advice }) {
  return (
    <section>
      <h2 className="wide font-bold">What does this ground need first?</h2>
      {advice.prep.length === 0 && <p className="text-soft">Nothing the rules know of.</p>}
      <ol>
        {advice.prep.map((m) => (
          <li key={m.rule + m.did} className="border-t border-line py-2">
            <strong>{m.did}.</strong> <span className="narrow text-sm">{m.reason}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Which grit is for what. */
export function GritAdvice({ advice }: { advice: Advice }) {
  return (
    <section>
      <h2 className="wide font-bold">Which grit?</h2>
      <table className="w-full text-left">
        <thead className="narrow text-sm text-soft">
          <tr>
            <th scope="col">for</th>
            <th scope="col" className="whitespace-nowrap">
              from coarse to fine
            </th>
          </tr>
        </thead>
        <tbody>
          {advice.grits.map((g) => (
            <tr key={g.purpose} className="border-t border-line align-baseline">
              <td className="py-1.5 pr-3">
                {g.name} <span className="narrow block text-sm text-soft">{g.why}</span>
              </td>
              <td className="numeral text-lg whitespace-nowrap">
                P{g.coarsest}–{g.finest}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
