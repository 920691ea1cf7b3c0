import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { usePutAway, useTakeJob } from "../api/changes";
import type { JobLine } from "../api/client";
import { useJobs } from "../api/workshop";
import { Jar } from "../drawings/Jar";
import { Failure } from "../parts/Failure";
import { Alert, Loading } from "../parts/notices";
import { SearchField } from "../parts/SearchField";
import { say, when } from "../parts/say";
import { Unread } from "./Unread";

/** What to do next on the last job, and all the jobs under it; `bare` where what is next is said above. */
export function JobsView({ bare = false }: { bare?: boolean }) {
  const [search, setSearch] = useState("");
  const jobs = useJobs({ search });
  const away = usePutAway();
  const navigate = useNavigate();
  const [gone, setGone] = useState<JobLine | null>(null);

  if (jobs.error) return <Failure error={jobs.error} onRetry={() => void jobs.refetch()} />;
  if (!jobs.data) return <Loading>Opening the jobs…</Loading>;
  const [first] = jobs.data;
  const list = jobs.data.flatMap((page) => page.jobs);
  const last = first?.last ?? null;
  const count = first?.count ?? 0;
  const some = count > 0 || search !== "";
  const start = (
    <Link to="/new" className="press press-strong inline-flex items-center px-5">
      New job
    </Link>
  );
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <Unread />
      {last && bare ? (
        <section aria-labelledby="next" className="flex flex-wrap items-center gap-3">
          <h2 id="next" className="min-w-0 grow">
            <span className="narrow text-sm font-semibold text-soft">Last opened: </span>
            <span className="bg-tape px-2 py-0.5 font-semibold">{last.name}</span> {last.next.says}
          </h2>
          <Link to={`/jobs/${last.id}/${last.next.side}`} className="press inline-flex items-center">
            Go on with it
          </Link>
        </section>
      ) : last ? (
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
      ) : some || bare ? (
        !bare && <h1 className="sr-only">Jobs</h1>
      ) : (
        <section className="max-w-xl border-b-2 border-ink pb-6">
          <h1 className="wide text-2xl leading-tight font-bold">Nothing on the bench yet</h1>
          <p className="mt-2 mb-5 text-lg">
            Measure a board, choose what goes on it, and Lumso says how much to mix, in the spoons you own.
          </p>
          <div className="flex flex-wrap gap-2">
            {start}
            <OpenFile onOpened={(id) => navigate(`/jobs/${id}`)} />
          </div>
        </section>
      )}
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
            <div className="flex flex-wrap gap-2">
              <OpenFile onOpened={(id) => navigate(`/jobs/${id}`)} />
              {start}
            </div>
          </div>
          {search && (
            <p role="status" className="narrow mb-2 text-sm text-soft">
              {count === 0 ? "No job" : count === 1 ? "One job" : `${count} jobs`} with “{search}” in the
              name.
            </p>
          )}
          <ul>
            {list.map((job) => (
              <Line
                key={job.id}
                job={job}
                onAway={() => away.mutate({ id: job.id, away: true }, { onSuccess: () => setGone(job) })}
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
      <p className="mt-8 border-t border-line pt-2">
        <Link to="/kept" className="inline-flex min-h-11 items-center underline">
          Put away, backups, and what waits to be saved
        </Link>
      </p>
    </div>
  );
}

/** From here on a list is searched rather than read. */
const MANY = 12;
function Line({ job, onAway }: { job: JobLine; onAway: () => void }) {
  return (
    <li className="flex items-stretch gap-3 border-t border-line py-2">
      <span aria-hidden className="flex w-8 flex-col border border-ink">
        {(job.hexes.length ? job.hexes : ["transparent"]).map((hex, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: colours in layer order
          <span key={i} className="grow" style={{ background: hex }} />
        ))}
      </span>
      <Link
        to={`/jobs/${job.id}`}
        className="flex min-h-11 min-w-0 grow flex-col justify-center hover:underline sm:flex-row sm:items-center sm:gap-4"
      >
        <span className="min-w-56 font-semibold">
          <span className="bg-tape px-2 py-0.5">{job.name}</span>
        </span>
        <span className="narrow min-w-0 grow text-soft">{job.next.says}</span>
        <span className="narrow text-sm whitespace-nowrap text-soft">{when(job.saved_at)}</span>
      </Link>
      <button type="button" className="press" aria-label={`Put ${job.name} away`} onClick={onAway}>
        Put away
      </button>
    </li>
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
      <button type="button" className="press" onClick={() => input.current?.click()}>
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
