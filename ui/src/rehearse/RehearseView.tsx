import { useCallback, useState } from "react";
import { Link, useParams } from "react-router";
import { type Act, type Rehearsed, useBoard, useRehearsed } from "../api/rehearsal";
import { useJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { Choice } from "../parts/fields";
import { Alert, Loading, TakeCare } from "../parts/notices";
import { lasts } from "../parts/say";
import { useAddress } from "../parts/useAddress";
import { usePlace } from "../parts/usePlace";
import { another, useCourse, useRunning } from "./acts";
import { Outcome, WentWrong } from "./Outcome";
import { WindowStrip } from "./Window";

/** One’s own job gone through on a board, before the brush is wet. Nothing of it is kept in the workshop. */
export function RehearseView() {
  const { id = "" } = useParams();
  const { open, failed, again } = useJob(id);
  const [zone, setZone] = useAddress("zone", "");
  const zones = open?.job.zones.filter((z) => z.layers.length > 0) ?? [];
  const meant = zones.find((z) => z.id === zone) ?? zones[0];
  usePlace(open ? `${open.job.name} · Rehearsal` : "");
  if (failed) return <Failure error={failed} onRetry={again} />;
  if (!open) return <Loading>Opening the job…</Loading>;
  return (
    <div className="mx-auto flex max-w-6xl flex-col gap-3 px-4 py-4">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="wide text-xl font-bold">
          <span className="bg-tape px-2">Rehearsal</span> {open.job.name}
        </h1>
        <div className="flex flex-wrap items-end gap-2">
          {zones.length > 1 && meant && (
            <Choice
              label="What is rehearsed"
              value={meant.id}
              options={zones.map((z) => ({ slug: z.id, name: z.name }))}
              onChange={setZone}
            />
          )}
          <Link to={`/jobs/${id}`} className="press inline-flex items-center">
            Back to the job
          </Link>
        </div>
      </div>
      {meant ? (
        <Board key={meant.id} job={id} of={{ job: open.job, zone: meant.id }} />
      ) : (
        <p>Nothing is planned yet: choose a finish first.</p>
      )}
    </div>
  );
}

interface BoardProps {
  job: string;
  of: { job: Parameters<typeof useRehearsed>[0]["job"]; zone: string };
}

/** The board, what is seen of it, and the keys. */
function Board({ job, of }: BoardProps) {
  const { course, does: noted, backTo, again } = useCourse(job, of.zone);
  const [runs, setRuns] = useState(false);
  const wanted = { ...of, ...course };
  const asked = useRehearsed(wanted);
  const picture = useBoard(wanted, false, !runs);
  const seen = asked.data;
  // One press is one act: what is pressed before the last was answered would be of what is no longer there.
  const busy = asked.isPlaceholderData;
  const does = useCallback((act: Act) => !busy && noted(act), [busy, noted]);
  const passes = useCallback((minutes: number) => does({ act: "pass", minutes }), [does]);
  const goes = runs && !asked.error && seen !== undefined && !seen.over && !asked.isPlaceholderData;
  useRunning(goes, passes);
  if (!seen)
    return asked.error ? (
      <Failure error={asked.error} onRetry={() => void asked.refetch()} />
    ) : (
      <Loading>Laying out the board…</Loading>
    );
  const start = (seed: number) => {
    setRuns(false);
    again(seed);
  };
  return (
    <div className="flex flex-col gap-3" data-waits={busy || undefined}>
      {asked.error && <Alert quiet>Lumso is not answering: the rehearsal waits.</Alert>}
      <p role="status" className="text-lg font-semibold">
        {seen.sign.says || (seen.over ? "All of it is done." : "Nothing is wet.")}
      </p>
      <div className="grid gap-4 md:grid-cols-[min(54dvh,50vw)_minmax(0,1fr)]">
        <figure className="m-0 min-w-0">
          <div className="mx-auto aspect-square w-full border-2 border-ink bg-steel max-md:max-w-[min(100%,30dvh)]">
            {picture && (
              <img
                src={picture}
                alt={`The board of ${seen.zone}: ${seen.sign.says || "as it is"}`}
                className="size-full object-cover"
              />
            )}
          </div>
          <figcaption className="narrow mt-1 flex flex-wrap justify-between gap-x-4 text-sm">
            <span>A board, in its own colours: an estimate.</span>
            <span className="numeral text-base" role="timer">
              {clock(seen.minute)}
            </span>
          </figcaption>
        </figure>
        <section aria-label="Now" className="min-w-0">
          {seen.stopped && (
            <div role="alert" className="said my-2 font-semibold">
              {seen.stopped}
            </div>
          )}
          {seen.next && <NextStep next={seen.next} />}
          {!seen.over && <WindowStrip seen={seen} />}
          <WentWrong of={seen.spoilt} />
        </section>
      </div>
      {seen.over ? (
        <Outcome seen={seen} wanted={wanted} mine={picture} onBack={backTo} onAgain={start} />
      ) : (
        <>
          <Keys seen={seen} runs={runs} onRuns={setRuns} does={does} />
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="press"
              disabled={!course.acts.length}
              onClick={() => backTo(course.acts.length - 1)}
            >
              One back
            </button>
            <button type="button" className="press" onClick={() => start(0)}>
              From the start, all as planned
            </button>
            <button type="button" className="press" onClick={() => start(another())}>
              From the start, on another afternoon
            </button>
          </div>
        </>
      )}
      <p className="narrow text-sm text-soft">
        {course.seed
          ? "This afternoon is its own: the room, the films and the pot lie somewhere within what the plan admits to. Go by what you see."
          : "Everything dries exactly as planned. On another afternoon it does not."}{" "}
        Nothing of a rehearsal reaches the log, the shelf or the days.
      </p>
    </div>
  );
}

/** What is next, how it is done, and what it can do to somebody. */
function NextStep({ next }: { next: NonNullable<Rehearsed["next"]> }) {
  return (
    <>
      <h2 className="wide mt-2 text-xl leading-tight font-bold">{next.says}</h2>
      {next.how.slice(0, 2).map((how) => (
        <p key={how} className="narrow">
          {how}
        </p>
      ))}
      {next.check && <p className="narrow text-soft">Right when: {next.check}</p>}
      <TakeCare texts={next.take_care} again={next.remember} />
    </>
  );
}

interface KeysProps {
  seen: Rehearsed;
  runs: boolean;
  onRuns: (runs: boolean) => void;
  does: (act: Act) => unknown;
}

const KEY = "press min-h-16 px-4 max-sm:min-h-14 max-sm:grow max-sm:px-2";
const HOUR = 60;
const NIGHT = 12 * HOUR;

/** The hands: what is next, the clock, and leaving it out. */
function Keys({ seen, runs, onRuns, does }: KeysProps) {
  const { next } = seen;
  const passes = (minutes: number) => does({ act: "pass", minutes });
  return (
    <div className="flex flex-wrap items-stretch bg-steel max-md:sticky max-md:bottom-0">
      {next && (
        <button
          type="button"
          className="press press-strong min-h-16 grow px-6 text-lg max-sm:basis-full"
          onClick={() => does({ act: "go" })}
        >
          {next.says}
        </button>
      )}
      <button type="button" className={KEY} onClick={() => does({ act: "watch" })}>
        Watch<span className="max-sm:sr-only"> until it looks different</span>
      </button>
      <button type="button" className={KEY} aria-pressed={runs} onClick={() => onRuns(!runs)}>
        {runs ? "Hold" : "Run"}
        <span className="max-sm:sr-only">{runs ? " the clock" : ": a minute a second"}</span>
      </button>
      <button type="button" className={KEY} onClick={() => passes(HOUR)}>
        1 h on
      </button>
      <button type="button" className={KEY} onClick={() => passes(NIGHT)}>
        Overnight
      </button>
      {next?.can_leave && (
        <button type="button" className={KEY} onClick={() => does({ act: "leave" })}>
          Leave it out
        </button>
      )}
    </div>
  );
}

/** How long it goes on: the day, and the hour of it. */
function clock(minute: number): string {
  return minute < 1 ? "Before anything is done" : `After ${lasts(minute)}`;
}
