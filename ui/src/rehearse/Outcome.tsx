import type { Rehearsed, Rehearsing } from "../api/rehearsal";
import { useBoard } from "../api/rehearsal";
import { lasts } from "../parts/say";
import { another } from "./acts";

/** What went wrong so far: what, why, and what mends it now. */
export function WentWrong({ of }: { of: Rehearsed["spoilt"] }) {
  if (!of.length) return null;
  return (
    <section aria-label="Went wrong" className="mt-3 border-t-2 border-ink pt-2">
      <ul className="flex flex-col gap-2">
        {of.map((one, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they only grow
          <li key={i} className="narrow border-l-4 border-ink pl-2 text-sm">
            <strong className="text-base first-letter:uppercase">{one.name}.</strong> {one.says}
            {one.bad_luck &&
              " Bad luck: it was done when the plan said; this afternoon was slower or faster."}
            <br />
            <span className="text-soft">What mends it: {one.mends}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface OutcomeProps {
  seen: Rehearsed;
  wanted: Rehearsing;
  mine: string;
  onBack: (before: number) => void;
  onAgain: (seed: number) => void;
}

/** When all is over: planned beside rehearsed, and each decision with when it should have been. */
export function Outcome({ seen, wanted, mine, onBack, onAgain }: OutcomeProps) {
  const planned = useBoard(wanted, true, true);
  const { compared } = seen;
  return (
    <section aria-labelledby="outcome" className="border-t-2 border-ink pt-3">
      <h2 id="outcome" className="wide text-lg font-bold">
        {seen.spoilt.length ? "What came of it" : "It came out as planned"}
      </h2>
      <div className="my-3 grid max-w-2xl grid-cols-2 gap-4">
        <Chip says="Planned" address={planned} />
        <Chip says="Rehearsed" address={mine} />
      </div>
      {compared && (
        <p className="narrow">
          {seemsOff(compared.off)} {lasts(compared.minutes)} from first to last; planned were{" "}
          {lasts(compared.planned_minutes)}.
        </p>
      )}
      <table className="mt-3 w-full text-sm">
        <caption className="sr-only">Each decision, and when it should have been</caption>
        <thead>
          <tr className="border-b-2 border-ink text-left">
            <th className="py-1">What</th>
            <th>When</th>
            <th>It was right</th>
            <th>What came</th>
            <th>
              <span className="sr-only">Again from here</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {seen.decided.map((one) => (
            <tr key={one.before} className="border-b border-line align-top">
              <td className="py-1 pr-2">{one.left_out ? `Left out: ${one.says}` : one.says}</td>
              <td className="numeral pr-2">{hours(one.at_min)}</td>
              <td className="pr-2">{rightTime(one)}</td>
              <td className="pr-2 font-semibold">{one.came.join(", ") || "–"}</td>
              <td>
                <button
                  type="button"
                  className="press !min-h-9 !py-0 text-sm"
                  onClick={() => onBack(one.before)}
                >
                  Again from here
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="press press-strong" onClick={() => onAgain(another())}>
          Once more, on another afternoon
        </button>
        <button type="button" className="press" onClick={() => onAgain(0)}>
          Once more, all as planned
        </button>
      </div>
    </section>
  );
}

function Chip({ says, address }: { says: string; address: string }) {
  return (
    <figure className="m-0">
      <div className="aspect-square border-2 border-ink bg-steel">
        {address && (
          <img src={address} alt={`The board as ${says.toLowerCase()}`} className="size-full object-cover" />
        )}
      </div>
      <figcaption className="narrow text-sm font-semibold">{says}</figcaption>
    </figure>
  );
}

/** How far off the colour is, in words. */
function seemsOff(off: number): string {
  if (off < 1) return "From afar nobody tells the colour from the planned one.";
  if (off < 3) return "From afar the colour is a shade off, side by side.";
  return `From afar the colour is plainly another (ΔE₀₀ ${off}).`;
}

/** When something should have been done, on this afternoon. */
function rightTime(one: Rehearsed["decided"][number]): string {
  const from = one.true_opens_min === null ? "" : `from ${hours(one.true_opens_min)}`;
  const until = one.true_closes_min === null ? "" : `until ${hours(one.true_closes_min)}`;
  return [from, until].filter(Boolean).join(" ") || "any time";
}

/** A minute of the rehearsal as hours and minutes from its beginning. */
function hours(minute: number): string {
  const whole = Math.max(0, Math.round(minute));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")} h`;
}
