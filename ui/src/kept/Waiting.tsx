import type { ReactNode } from "react";
import { Link } from "react-router";
import { Unanswered } from "../job/outer";
import type { Unsaved } from "../job/sessions";
import type { Edit } from "../keep/edits";
import { useEdits, useKeeping, useUnsavedJobs } from "../keep/hooks";
import { download } from "../parts/download";
import { Row } from "../parts/notices";
import { when } from "../parts/say";

/** What is not saved yet, and what was refused: on one list, each with the ways on. */
export function Waiting() {
  const { outbox } = useKeeping();
  const edits = useEdits();
  const jobs = useUnsavedJobs();
  const nothing = !edits.length && !jobs.length;
  return (
    <section aria-labelledby="waiting" className="mt-4 border-t-2 border-ink pt-3">
      <h2 id="waiting" className="text-lg font-bold">
        Waiting to be saved
      </h2>
      {!outbox.lasting && (
        <p role="alert" className="my-2 border-l-4 border-ink pl-2 font-semibold">
          This browser keeps nothing. What is not saved is lost when this page is closed.
        </p>
      )}
      {nothing && <p className="text-soft">Nothing: all that was entered here is saved.</p>}
      <ul>
        {jobs.map((job) => (
          <JobLine key={job.id + (job.draft?.page ?? "")} job={job} />
        ))}
        {edits.map((edit) => (
          <EditLine key={edit.key} edit={edit} />
        ))}
      </ul>
    </section>
  );
}

function Line({ name, says, children }: { name: ReactNode; says: string; children?: ReactNode }) {
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-line py-2">
      <span className="min-w-0 grow">
        <span className="font-semibold">{name}</span>
        <span className="narrow block text-sm break-words text-soft">{says}</span>
      </span>
      {children}
    </li>
  );
}

/** A job that was kept here and cannot be opened any more: its text is not lost. */
function LostJob({ job }: { job: Unsaved }) {
  const { sessions } = useKeeping();
  const file = () => {
    const text = JSON.stringify((job.draft?.kept as { base?: unknown } | undefined)?.base, null, 2);
    download(new Blob([text], { type: "application/json" }), "job.json");
  };
  return (
    <Line
      name={<span className="bg-tape px-2 py-0.5">{job.name}</span>}
      says={`Refused: ${job.session?.failed?.message}`}
    >
      <Row>
        <button type="button" className="press" onClick={file}>
          Save it as a file
        </button>
        <button type="button" className="press" onClick={() => void sessions.letGo(job)}>
          Let it go
        </button>
      </Row>
    </Line>
  );
}

function JobLine({ job }: { job: Unsaved }) {
  const { id, session } = job;
  if (!session)
    return <Line name={job.name} says="Kept by another page of this browser, which sees to it." />;
  const shown = session.shown();
  if (session.failed && !(session.failed instanceof Unanswered)) return <LostJob job={job} />;
  if (!shown) return <Line name={job.name} says="On this device only; it is being opened, to be saved." />;
  const refused = shown.refused.map((r) => `${r.label}: ${r.says}`);
  const says =
    shown.saveState === "changed elsewhere"
      ? "Refused: changed elsewhere. Open it to say which one goes on."
      : refused.length
        ? `Refused: ${refused.join("; ")}`
        : shown.saveState === "refused"
          ? `Refused: ${shown.says}`
          : "On this device only; saved as soon as Lumso answers.";
  return (
    <Line name={<span className="bg-tape px-2 py-0.5">{shown.job.name}</span>} says={says}>
      <Link to={`/jobs/${id}`} className="press inline-flex items-center">
        Open it
      </Link>
    </Line>
  );
}

function EditLine({ edit }: { edit: Edit }) {
  const { outbox } = useKeeping();
  const elsewhere = edit.head !== null;
  const at = when(new Date(edit.at).toISOString());
  const what = edit.method === "DELETE" ? "taken out" : "changed";
  const waits = `${what} ${at}; ${outbox.lasting ? "kept here" : "not kept"}, saved as soon as Lumso answers.`;
  const says = elsewhere
    ? "Refused: it was changed elsewhere since you read it."
    : edit.says !== null
      ? `Refused: ${edit.says}`
      : waits.charAt(0).toUpperCase() + waits.slice(1);
  return (
    <Line name={edit.label} says={says}>
      {edit.says !== null && (
        <Row>
          <button type="button" className="press" onClick={() => void outbox.again(edit)}>
            {elsewhere ? "Mine goes on" : "Try it again"}
          </button>
          <button
            type="button"
            className="press"
            aria-label={`Let go: ${edit.label}`}
            onClick={() => void outbox.letGo(edit)}
          >
            {elsewhere ? "Theirs stays" : "Let it go"}
          </button>
        </Row>
      )}
    </Line>
  );
}
