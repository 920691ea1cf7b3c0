import { useState } from "react";
import { useBringBack, useDeleteAside, useDeleteJob, usePutAway } from "../api/changes";
import type { Aside, JobLine } from "../api/client";
import { useAside, useGone, useJobs, useKind } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { Row } from "../parts/notices";
import { SearchField } from "../parts/SearchField";
import { when } from "../parts/say";

const KINDS: Record<Aside["kind"], string> = {
  kit: "Kit",
  recipe: "Recipe",
  shelf: "Shelf",
  lot: "Bought",
  setting: "Setting",
  job: "Job",
};

/** Jobs that were put away and entries that were taken out: found, brought back, or deleted by choice. */
export function PutAway() {
  const [search, setSearch] = useState("");
  const jobs = useJobs({ away: true, search });
  const aside = useAside();
  const list = jobs.data?.flatMap((page) => page.jobs) ?? [];
  const out = aside.data?.filter((a) => a.name.toLowerCase().includes(search.toLowerCase())) ?? [];
  const some = list.length + out.length > 0 || search !== "";
  return (
    <section aria-labelledby="away" className="mt-6 border-t-2 border-ink pt-3">
      <div className="mb-2 flex flex-wrap items-end justify-between gap-3">
        <h2 id="away" className="text-lg font-bold">
          Put away
        </h2>
        {some && <SearchField label="Find by name" onSearch={setSearch} />}
      </div>
      {(jobs.error ?? aside.error) && <Failure error={(jobs.error ?? aside.error) as Error} />}
      {!some && <p className="text-soft">Nothing is put away.</p>}
      {some && !list.length && !out.length && <p className="text-soft">Nothing of that name.</p>}
      <ul>
        {list.map((job) => (
          <AwayJob key={job.id} job={job} />
        ))}
        {out.map((kept) => (
          <Out key={kept.id} kept={kept} />
        ))}
      </ul>
      {jobs.hasNextPage && (
        <button type="button" className="press mt-3" onClick={() => void jobs.fetchNextPage()}>
          Show more
        </button>
      )}
    </section>
  );
}

interface EntryProps {
  name: string;
  says: string;
  file: string;
  onBack: (() => void) | null;
  goes: string;
  onAsk?: () => void;
  onDelete: () => void;
  error: Error | null;
}

/** Something put away: it comes back at a press, and goes for good only at a second one, by who keeps. */
function Entry({ name, says, file, onBack, goes, onAsk, onDelete, error }: EntryProps) {
  const [asks, setAsks] = useState(false);
  const keeps = useKind() === "keeps";
  return (
    <li className="border-t border-line py-2">
      <div className="flex flex-wrap items-center gap-3">
        <span className="min-w-0 grow basis-56">
          <span className="bg-tape px-2 py-0.5 font-semibold">{name}</span>
          <span className="narrow mt-1 block text-sm text-soft">{says}</span>
        </span>
        <Row>
          {onBack && (
            <button type="button" className="press" aria-label={`Bring ${name} back`} onClick={onBack}>
              Bring it back
            </button>
          )}
          <a
            className="press inline-flex items-center"
            aria-label={`Save ${name} as a file`}
            href={file}
            download
          >
            As a file
          </a>
          {keeps && (
            <button
              type="button"
              className="press"
              aria-label={`Delete ${name} for good`}
              aria-expanded={asks}
              onClick={() => {
                setAsks(!asks);
                onAsk?.();
              }}
            >
              Delete
            </button>
          )}
        </Row>
      </div>
      {asks && (
        <div className="mt-2 border-2 border-ink bg-enamel p-3">
          <p>{goes}</p>
          <div className="mt-2">
            <Row>
              <button type="button" className="press press-strong" onClick={onDelete}>
                Delete it for good
              </button>
              <button type="button" className="press" onClick={() => setAsks(false)}>
                Keep it
              </button>
            </Row>
          </div>
        </div>
      )}
      {error && <Failure error={error} />}
    </li>
  );
}

const count = (n: number, one: string, many: string) => (n === 1 ? `one ${one}` : `${n} ${many}`);

function AwayJob({ job }: { job: JobLine }) {
  const away = usePutAway();
  const remove = useDeleteJob();
  const [asked, setAsked] = useState(false);
  const gone = useGone(job.id, asked).data;
  const goes = gone
    ? `${job.name} goes, with ${count(gone.revisions, "saved version", "saved versions")}. ` +
      (gone.batches_kept
        ? `${count(gone.batches_kept, "printed batch is", "printed batches are")} kept, and still opened by their codes.`
        : "Nothing was printed from it.")
    : "Looking what goes with it…";
  return (
    <Entry
      name={job.name}
      says={`Job, last saved ${when(job.saved_at)}`}
      file={`/api/jobs/${job.id}/file`}
      onBack={() => away.mutate({ id: job.id, away: false })}
      goes={goes}
      onAsk={() => setAsked(true)}
      onDelete={() => remove.mutate(job.id)}
      error={away.error ?? remove.error}
    />
  );
}

function Out({ kept }: { kept: Aside }) {
  const back = useBringBack();
  const remove = useDeleteAside();
  return (
    <Entry
      name={kept.name}
      says={`${KINDS[kept.kind]}, ${kept.why} ${when(kept.at)}`}
      file={`/api/aside/${kept.id}/file`}
      onBack={kept.returns ? () => back.mutate(kept.id) : null}
      goes={`${kept.name} goes, as it was kept.`}
      onDelete={() => remove.mutate(kept.id)}
      error={back.error ?? remove.error}
    />
  );
}
