import { type ReactNode, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { useCopyJob, usePutAway, useTakeJob, useTakeSample } from "../api/changes";
import type { JobLine } from "../api/client";
import { useJobs } from "../api/workshop";
import { Jar } from "../drawings/Jar";
import { Failure } from "../parts/Failure";
import { Alert, Loading } from "../parts/notices";
import { SearchField } from "../parts/SearchField";
import { say, when } from "../parts/say";
import { useAddress } from "../parts/useAddress";
import { Unread } from "./Unread";

/** What to do next on the last job, and all the jobs under it; `bare` where what is next is said above. */
export function JobsView({ bare = false }: { bare?: boolean }) {
  const [search, setSearch] = useState("");
  const [order, setOrder] = useAddress("by", "last");
  const latest = useJobs();
  const jobs = useJobs({ search, order: order === "name" ? "name" : "last" });
  const away = usePutAway();
  const copy = useCopyJob();
  const navigate = useNavigate();
  const [gone, setGone] = useState<JobLine | null>(null);

  if (jobs.error) return <Failure error={jobs.error} onRetry={() => void jobs.refetch()} />;
  if (!jobs.data) return <Loading>Opening the jobs…</Loading>;
  const [first] = jobs.data;
  const [newest] = latest.data ?? [];
  const list = jobs.data.flatMap((page) => page.jobs);
  const last = newest?.last ?? null;
  const count = first?.count ?? 0;
  const some = count > 0 || search !== "";
  const actions = (
    <div className="flex flex-wrap gap-2">
      <Link to="/new" className={`press inline-flex items-center px-5 ${last || bare ? "" : "press-strong"}`}>
        New job
      </Link>
      <Link to="/left" className="press inline-flex items-center">
        Use up leftovers
      </Link>
      <Link to="/ask" className="press inline-flex items-center">
        Ask about a finish
      </Link>
    </div>
  );
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <Unread />
      {last && bare && <LastOpened last={last} />}
      {last && !bare && <NextOnIt last={last} />}
      {!last && !bare && (some ? <h1 className="sr-only">Jobs</h1> : <Empty actions={actions} />)}
      {gone && (
        <p role="status" className="mt-4 flex flex-wrap items-center gap-3">
          {gone.name} is put away.
          <button
            type="button"
            className="press"
            onClick={() => away.mutate({ id: gone.id, away: false }, { onSuccess: () => setGone(null) })}
          >
            Bring it back
          </button>
        </p>
      )}
      {some && (
        <section aria-labelledby="jobs" className="mt-6">
          <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
            <h2 id="jobs" className="text-lg font-bold">
              Jobs
            </h2>
            {(count > MANY || search) && <SearchField label="Find a job by its name" onSearch={setSearch} />}
            {actions}
          </div>
          <div className="flex flex-wrap items-center justify-between gap-3">
            {count > 1 && <InOrder order={order} onOrder={setOrder} />}
            <OpenFile onOpened={(id) => navigate(`/jobs/${id}`)} />
          </div>
          {search && <FoundSo count={count} search={search} />}
          <ul>
            {list.map((job) => (
              <Line
                key={job.id}
                job={job}
                onAway={() => away.mutate({ id: job.id, away: true }, { onSuccess: () => setGone(job) })}
                onCopy={() => copy.mutate(job.id, { onSuccess: (made) => navigate(`/jobs/${made.id}`) })}
              />
            ))}
          </ul>
          {jobs.hasNextPage && (
            <button
              type="button"
              className="press mt-3 w-full"
              disabled={jobs.isFetchingNextPage}
              onClick={() => void jobs.fetchNextPage()}
            >
              {list.length} of {count} are shown. Show more
            </button>
          )}
        </section>
      )}
    </div>
  );
}

type LastJob = NonNullable<NonNullable<ReturnType<typeof useJobs>["data"]>[number]["last"]>;

/** The job last worked on, in one line. */
function LastOpened({ last }: { last: LastJob }) {
  return (
    <section aria-labelledby="next" className="flex flex-wrap items-center gap-3">
      <h2 id="next" className="min-w-0 grow">
        <span className="narrow text-sm font-semibold text-soft">Last opened: </span>
        <span className="bg-tape px-2 py-0.5 font-semibold">{last.name}</span> {last.next.says}
      </h2>
      <Link to={`/jobs/${last.id}/${last.next.side}`} className="press inline-flex items-center">
        Go on with it
      </Link>
    </section>
  );
}

/** What is next on the job last worked on, with the amounts of its pot. */
function NextOnIt({ last }: { last: LastJob }) {
  return (
    <section aria-labelledby="next" className="border-b-2 border-ink pb-6">
      <div className="flex gap-6">
        <div className="min-w-0 grow">
          <p className="text-sm font-semibold text-soft">
            Next, on <span className="bg-tape px-2 py-1 text-ink">{last.name}</span>
          </p>
          <h1 id="next" className="wide mt-3 text-2xl leading-tight font-bold">
            {last.next.says}
          </h1>
          {last.pot && last.next.side === "mix" ? (
            <ol className="mt-5 flex flex-wrap gap-x-10 gap-y-3">
              {last.pot.parts.map((part) => (
                <li key={part.component}>
                  <span className="flex items-center gap-2 font-semibold">
                    <span
                      aria-hidden
                      className="size-5 border-2 border-ink"
                      style={{ background: part.hex }}
                    />
                    {part.name}
                  </span>
                  <span className="numeral text-3xl">{say(part.poured.value)}</span>{" "}
                  <span className="text-xl font-semibold">ml</span>
                  <span className="numeral block text-lg font-medium">{part.spoken.words}</span>
                </li>
              ))}
            </ol>
          ) : (
            <p className="mt-2 text-lg">{last.next.detail}</p>
          )}
          <Link
            to={`/jobs/${last.id}/${last.next.side}`}
            className="press press-strong mt-6 inline-flex min-h-[72px] items-center px-8 text-lg"
          >
            Go on with it
          </Link>
        </div>
        {last.pot && last.next.side === "mix" && (
          <div className="hidden h-72 w-48 shrink-0 sm:block">
            <Jar jar={last.pot.jar} />
          </div>
        )}
      </div>
    </section>
  );
}

/** In which order the jobs are listed. */
function InOrder({ order, onOrder }: { order: string; onOrder: (order: string) => void }) {
  return (
    <fieldset className="flex">
      <legend className="sr-only">In which order</legend>
      {(["last", "name"] as const).map((by) => (
        <button
          key={by}
          type="button"
          aria-pressed={order === by}
          className="side aria-pressed:border-ink"
          onClick={() => onOrder(by)}
        >
          {by === "last" ? "Last worked on" : "By name"}
        </button>
      ))}
    </fieldset>
  );
}

/** How many jobs were found. */
function FoundSo({ count, search }: { count: number; search: string }) {
  const jobs = count === 0 ? "No job" : count === 1 ? "One job" : `${count} jobs`;
  return (
    <p role="status" className="narrow mb-2 text-sm text-soft">
      {jobs} with “{search}” in the name.
    </p>
  );
}

/** From here on a list is searched rather than read. */
const MANY = 12;
function Line({ job, onAway, onCopy }: { job: JobLine; onAway: () => void; onCopy: () => void }) {
  const [more, setMore] = useState(false);
  return (
    <li className="flex flex-wrap items-stretch gap-3 border-t border-line py-2">
      <span aria-hidden className="flex w-8 flex-col border border-ink">
        {(job.hexes.length ? job.hexes : ["transparent"]).map((hex, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: colours in layer order
          <span key={i} className="grow" style={{ background: hex }} />
        ))}
      </span>
      <Link
        to={`/jobs/${job.id}`}
        className="flex min-h-11 min-w-0 flex-1 flex-col justify-center hover:underline sm:flex-row sm:items-center sm:gap-4"
      >
        <span className="min-w-56 font-semibold">
          <span className="bg-tape px-2 py-0.5">{job.name}</span>
        </span>
        <span className="narrow min-w-0 grow text-soft">{job.next.says}</span>
        <span className="narrow text-sm whitespace-nowrap text-soft">{when(job.saved_at)}</span>
      </Link>
      <button
        type="button"
        className="min-h-11 min-w-11 px-2 text-lg font-bold"
        aria-label={`More with ${job.name}`}
        aria-expanded={more}
        onClick={() => setMore(!more)}
      >
        ⋯
      </button>
      {more && (
        <div className="flex w-full flex-wrap justify-end gap-2">
          <button type="button" className="press" onClick={onCopy}>
            Copy this job
          </button>
          <button type="button" className="press" onClick={onAway}>
            Put away
          </button>
        </div>
      )}
    </li>
  );
}

/** An empty workshop: what one does first, and a job to look at. */
function Empty({ actions }: { actions: ReactNode }) {
  const navigate = useNavigate();
  const sample = useTakeSample();
  return (
    <section className="max-w-3xl border-b-2 border-ink pb-6">
      <h1 className="wide text-2xl leading-tight font-bold">Nothing on the bench yet</h1>
      <ol className="mt-4 mb-6 grid gap-x-8 gap-y-3 text-lg sm:grid-cols-3">
        <li>
          <strong>Say what it is</strong> and what it should become. Usual sizes stand in until you measure.
        </li>
        <li>
          <strong>See how much to mix</strong>, in the spoons you own, in which order, and what would go
          wrong.
        </li>
        <li>
          <strong>Take it to the bench</strong>: one step at a time, and it is written down as you go.
        </li>
      </ol>
      {actions}
      <div className="mt-3 flex flex-wrap items-center gap-x-6">
        <button
          type="button"
          className="min-h-11 underline"
          onClick={() => sample.mutate("sample", { onSuccess: (made) => navigate(`/jobs/${made.id}`) })}
        >
          Look at a sample job
        </button>
        <OpenFile onOpened={(id) => navigate(`/jobs/${id}`)} />
        <Link to="/help" className="inline-flex min-h-11 items-center underline">
          How this works
        </Link>
      </div>
      {sample.error && <Failure error={sample.error} />}
    </section>
  );
}

/** A job file becomes a new job; one that cannot be read says where and why. */
function OpenFile({ onOpened }: { onOpened: (id: string) => void }) {
  const take = useTakeJob();
  const input = useRef<HTMLInputElement>(null);

  async function chosen(file: File | undefined) {
    if (!file) return;
    take.mutate({ name: file.name, text: await file.text() }, { onSuccess: (made) => onOpened(made.id) });
    if (input.current) input.current.value = "";
  }

  return (
    <>
      <button type="button" className="min-h-11 underline" onClick={() => input.current?.click()}>
        Open a job file
      </button>
      <input
        ref={input}
        type="file"
        accept=".json"
        className="hidden"
        aria-label="Job file to open"
        onChange={(e) => void chosen(e.target.files?.[0])}
      />
      {take.error && <Alert quiet>{take.error.message}</Alert>}
    </>
  );
}
