import { useState } from "react";
import { type Days, type DaysChosen, Refused } from "../api/client";
import { type Shown, useDays, useDaysChosen, useNotedHere, usePutDays } from "../api/days";
import { DayStrip } from "../drawings/DayStrip";
import { KeptWord } from "../keep/KeptWord";
import { Failure } from "../parts/Failure";
import { Alert, Fault, Loading } from "../parts/notices";
import { usePlace } from "../parts/usePlace";
import { HoursPanel } from "./HoursPanel";
import { JobsInDays, More } from "./JobsInDays";
import { Said } from "./Said";
import { Visits } from "./Visits";

/** The days: the strip, what was promised, every visit, and the hours it is all found from. */
export function DaysView() {
  usePlace("Days");
  const asked = useDaysChosen();
  const put = usePutDays();
  const [picked, setPicked] = useState("");
  const chosen = asked.data?.chosen;
  const shown = useDays(chosen);
  const here = useNotedHere(shown.reply?.noted);
  if (asked.error) return <Failure error={asked.error} onRetry={() => void asked.refetch()} />;
  if (!asked.data || !chosen) return <Loading>Opening the days…</Loading>;
  const read = asked.data.revision;
  const change = (next: DaysChosen) => put.mutate({ chosen: next, read });
  const { reply } = shown;
  const pick = (name: string) => {
    setPicked(name);
    if (name) document.getElementById(`op-${name}`)?.scrollIntoView({ block: "center" });
  };
  return (
    <div className="py-5">
      <div className="px-4 sm:px-8">
        <div className="flex flex-wrap items-baseline gap-x-6">
          <h1 className="wide text-xl font-bold">Days</h1>
          {reply && chosen.jobs.length > 0 && <HowGood days={reply.days} shown={shown} />}
          <KeptWord doc="days/chosen" kept />
        </div>
        {shown.error &&
          (shown.error instanceof Refused ? (
            <Refusal error={shown.error} />
          ) : (
            <Failure error={shown.error} onRetry={() => void shown.refetch()} />
          ))}
        {put.error && !(shown.error instanceof Refused) && <Failure error={put.error} />}
      </div>
      {chosen.jobs.length === 0 ? (
        <section className="max-w-xl px-4 pt-3 sm:px-8">
          <p className="text-lg">
            Put a job into the days: Lumso finds when to do what, in the hours you have.
          </p>
          <More {...{ chosen, onChange: change }} />
        </section>
      ) : (
        reply && (
          <div data-stale={shown.old || undefined}>
            <div className="px-4 pt-3 sm:px-8">
              <JobsInDays days={reply.days} {...{ chosen, onChange: change }} />
            </div>
            <div className="mt-4">
              <DayStrip
                strip={reply.strip}
                picked={picked}
                onPick={(job, operation) => pick(`${job}|${operation}`)}
              />
              <p className="narrow px-4 pt-1 text-sm text-soft sm:px-8">
                Black: hands on. Hatched: wet. A line: until it may be gone on with. Underlined: the finish
                hangs on it. Hours in which nobody is there are folded.
              </p>
            </div>
            <div className="mx-auto max-w-6xl px-4 sm:px-8">
              <Said days={reply.days} moved={reply.moved} seeTo={reply.see_to} />
              <Visits {...{ reply, chosen, here, picked }} onPick={setPicked} onChange={change} />
              <Chain days={reply.days} />
              <Out />
            </div>
          </div>
        )
      )}
      <div className="px-4 sm:px-8">
        <HoursPanel choices={asked.data} room={reply?.room} onChange={change} />
      </div>
    </div>
  );
}

/** What of the hours cannot be used. */
function Refusal({ error }: { error: Refused }) {
  const faults = error.problem.faults ?? [];
  if (!faults.length) return <Alert>{error.message}</Alert>;
  return faults.map((f) => <Fault key={f.at} says={f.says} allowed={f.allowed} />);
}

/** How good the days are, and the search for better ones. */
function HowGood({ days, shown }: { days: Days; shown: Shown }) {
  return (
    <p role="status" className="narrow flex flex-wrap items-center gap-x-3 text-sm">
      <span>
        <span className="numeral text-lg">{days.hands_on}</span> hands on, in{" "}
        {days.visits.length === 1 ? "one visit" : `${days.visits.length} visits`}.{" "}
        {shown.searching && days.how === "at once" ? "Looking for the best…" : days.says}
      </span>
      {shown.searching && days.how === "at once" && (
        <button type="button" className="press" onClick={shown.stop}>
          Stop looking
        </button>
      )}
    </p>
  );
}

/** What waits for what, up to the finish. */
function Chain({ days }: { days: Days }) {
  if (!days.chain.length) return null;
  return (
    <details data-paper className="mt-8 border-t-2 border-ink pt-2">
      <summary className="min-h-11 py-2 text-lg font-bold">What the finish hangs on</summary>
      <ol className="list-decimal pl-6">
        {days.chain.map((text) => (
          <li key={text} className="py-0.5">
            {text}
          </li>
        ))}
      </ol>
    </details>
  );
}

const FILES = [
  { href: "/api/days/calendar.ics", name: "For a calendar" },
  { href: "/api/days/sheet.pdf", name: "On paper" },
  { href: "/api/days/strip.svg", name: "The strip as a drawing" },
];

function Out() {
  return (
    <p className="mt-6 flex flex-wrap gap-2">
      {FILES.map((f) => (
        <a key={f.href} href={f.href} download className="press inline-flex items-center">
          {f.name}
        </a>
      ))}
    </p>
  );
}
