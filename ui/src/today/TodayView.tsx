import { Link } from "react-router";
import type { DayOperation, DaysReply } from "../api/client";
import { useDays, useDaysChosen, useNotedHere } from "../api/days";
import { useJobs } from "../api/workshop";
import { Air } from "../days/HoursPanel";
import { Marking, stateOf, stateWord } from "../days/Marking";
import { Said } from "../days/Said";
import { JobsView } from "../jobs/JobsView";
import { NoCopies } from "../jobs/NoCopies";
import { Alert, Loading } from "../parts/notices";
import { usePlace } from "../parts/usePlace";
import { Told } from "../steps/Step";

/** What to do now, next and later, by the days; below it all the jobs. */
export function TodayView() {
  usePlace("Today");
  useJobs(); // asked at once; shown when what stands above it is there
  const asked = useDaysChosen();
  const chosen = asked.data?.chosen;
  const some = (chosen?.jobs.length ?? 0) > 0;
  const shown = useDays(some ? chosen : undefined);
  const { reply } = shown;
  // The list of jobs waits for what stands above it: nothing moves under a finger.
  const waits = (!asked.data && !asked.error) || (some && !reply && !shown.error);
  if (waits) return <Loading>Looking what is next…</Loading>;
  return (
    <>
      <NoCopies />
      {some && reply && <Today reply={reply} away={shown.error !== null} />}
      <JobsView bare={some && reply !== undefined} />
    </>
  );
}

function Today({ reply, away }: { reply: DaysReply; away: boolean }) {
  const here = useNotedHere(reply.noted);
  const { days, room } = reply;
  const several = days.jobs.length > 1;
  const names = new Map(days.jobs.map((j) => [j.job, j.name]));
  const over = (one: DayOperation) => {
    const state = stateOf(one, here(one));
    return state === "done" || state === "skipped" || state === "gone wrong";
  };
  const hands = days.operations.filter((o) => o.operation.hands_on_min > 0);
  const left = hands.filter((o) => !over(o));
  const [now, ...later] = left;
  const visit = days.visits[now?.visit ?? -1] ?? days.visits[0];
  const mine = later.filter((o) => now && (o.visit === now.visit || now.visit < 0));
  const noted = hands.filter((o) => over(o) && stateOf(o, here(o)) !== "planned").slice(-8);
  const on =
    now !== undefined && (stateOf(now, here(now)) === "begun" || (visit && visit.begins_min <= days.now_min));
  return (
    <section aria-labelledby="today" className="mx-auto max-w-6xl border-b-2 border-ink px-4 py-6 sm:px-8">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
        <h1 id="today" className="wide text-xl font-bold">
          {!now
            ? "All of it is done"
            : on
              ? "At the bench"
              : `Next at the bench: ${visit?.day ?? now.day}, ${visit?.at ?? now.at}`}
        </h1>
        <Link to="/days" className="press inline-flex items-center">
          All the days
        </Link>
      </div>
      {visit && now && (
        <p className="narrow text-soft">
          {visit.hands_on} hands on{visit.then_away && `, then nothing for ${visit.then_away}`}.
        </p>
      )}
      {away && (
        <Alert quiet>
          Lumso is not answering. What you note is kept here, and the days are as they were.
        </Alert>
      )}
      <Said days={days} moved={reply.moved} seeTo={reply.see_to} />
      {now && (
        <article className="mt-4 border-l-8 border-ink pl-4">
          <p className="flex flex-wrap items-baseline gap-2">
            <span className="numeral text-2xl">{now.at}</span>
            {several && <span className="bg-tape px-2 font-semibold">{names.get(now.job)}</span>}
            {now.operation.zone_name && (
              <span className="border border-ink px-2 font-semibold">{now.operation.zone_name}</span>
            )}
          </p>
          <h2 className="wide mt-1 text-xl leading-tight font-bold">{now.operation.says}</h2>
          {now.must_by && (
            <p className="mt-1">
              <strong>By {now.must_by};</strong> later: {now.else_do}.
            </p>
          )}
          <div className="my-3">
            <Marking key={now.operation.id} one={now} here={here(now)} large />
          </div>
          <Told operation={now.operation} job={now.job} />
        </article>
      )}
      {mine.length > 0 && (
        <>
          <h2 className="mt-6 border-b border-line text-lg font-bold">Then</h2>
          <ol>
            {mine.slice(0, SHOWN).map((one) => (
              <Line
                key={one.job + one.operation.id}
                one={one}
                name={several ? names.get(one.job) : undefined}
              />
            ))}
          </ol>
          {mine.length > SHOWN && (
            <details data-paper>
              <summary className="inline-flex min-h-11 items-center underline">
                And {mine.length - SHOWN} more before clearing away
              </summary>
              <ol>
                {mine.slice(SHOWN).map((one) => (
                  <Line
                    key={one.job + one.operation.id}
                    one={one}
                    name={several ? names.get(one.job) : undefined}
                  />
                ))}
              </ol>
            </details>
          )}
        </>
      )}
      {noted.length > 0 && (
        <>
          <h2 className="mt-6 border-b border-line text-lg font-bold">Done</h2>
          <ul>
            {noted.map((one) => (
              <li
                key={one.job + one.operation.id}
                className="flex flex-wrap items-center justify-between gap-2 border-b border-line py-1"
              >
                <span>
                  <span className="numeral mr-2">{one.at}</span>
                  {one.operation.says}{" "}
                  <strong className="sr-only">{stateWord(stateOf(one, here(one)))}</strong>
                </span>
                <Marking one={one} here={here(one)} />
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-5">
        <Air room={room} />
      </div>
    </section>
  );
}

/** So much of what comes then is shown at once: the list below stays where it is when the best days are found. */
const SHOWN = 4;

function Line({ one, name }: { one: DayOperation; name: string | undefined }) {
  return (
    <li className="grid grid-cols-[6.5rem_1fr] gap-x-3 border-b border-line py-2">
      <span className="numeral text-base">{one.at}</span>
      <span className="min-w-0">
        {name && <span className="bg-tape px-1.5 text-sm">{name}</span>}{" "}
        {one.operation.zone_name && (
          <span className="border border-line px-1.5 text-sm">{one.operation.zone_name}</span>
        )}{" "}
        <span className="font-semibold">{one.operation.says}</span>
        {one.must_by && <span className="narrow text-sm text-soft"> by {one.must_by}</span>}
      </span>
    </li>
  );
}
