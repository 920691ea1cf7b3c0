import { useNavigate } from "react-router";
import { useMend, usePutAway } from "../api/changes";
import { Refused } from "../api/client";
import { Failure } from "../parts/Failure";
import { Alert, Row } from "../parts/notices";

/** A job that is kept and cannot be opened: what is wrong, and the ways on. Nothing of it is lost. */
export function CannotOpen({ id, error, onRetry }: { id: string; error: Error; onRetry: () => void }) {
  const mend = useMend();
  const away = usePutAway();
  const navigate = useNavigate();
  if (!(error instanceof Refused) || error.problem.status === 404)
    return <Failure error={error} onRetry={onRetry} />;
  const faults = error.problem.faults ?? [];
  return (
    <div className="mx-auto max-w-3xl p-4 sm:p-8">
      <h1 className="wide text-xl font-bold">This job cannot be opened</h1>
      <div className="my-4">
        <Alert>
          {!faults.length && <p>{error.message}</p>}
          <ul className="narrow text-sm font-normal">
            {faults.map((fault) => (
              <li key={fault.at + fault.says} className="break-words">
                {fault.at}: {fault.says} {fault.allowed && `Allowed: ${fault.allowed}.`}
              </li>
            ))}
          </ul>
        </Alert>
      </div>
      <p className="mb-4">It is kept as it is. What was worked on before stands behind it.</p>
      <Row>
        <button
          type="button"
          className="press press-strong"
          disabled={mend.isPending}
          onClick={() => mend.mutate(id, { onSuccess: onRetry })}
        >
          Go back to the last version that opens
        </button>
        <a className="press inline-flex items-center" href={`/api/jobs/${id}/file`} download>
          Save it as a file
        </a>
        <button
          type="button"
          className="press"
          onClick={() => away.mutate({ id, away: true }, { onSuccess: () => navigate("/") })}
        >
          Put it away
        </button>
      </Row>
      {(mend.error ?? away.error) && <Failure error={(mend.error ?? away.error) as Error} />}
    </div>
  );
}
