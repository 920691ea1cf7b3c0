import { Alert, Row } from "../parts/notices";
import type { OpenJob } from "./useJob";

/** What waits for Lumso, and what it refused: with what was entered, until it is let go. */
export function Pending({ open }: { open: OpenJob }) {
  const { waiting, refused, says, stale, session } = open;
  return (
    <>
      {says && (
        <div className="narrow w-full text-sm">
          <Alert>{says}</Alert>
        </div>
      )}
      {(waiting.length > 0 || (stale && open.saveState !== "saving")) && (
        <p role="status" className="narrow w-full border-l-4 border-line pl-2 text-sm">
          {waiting.length > 0 && <>On this device only, not yet with the workshop: {waiting.join(", ")}. </>}
          {stale && "The hatched amounts are from before your last change."}
        </p>
      )}
      {refused.map((refusal) => (
        <div key={refusal.label + refusal.says} className="flex w-full flex-wrap items-center gap-3">
          <div className="grow">
            <Alert quiet>
              <strong>Not done: {refusal.label}.</strong> {refusal.says}
            </Alert>
          </div>
          <Row>
            <button type="button" className="press" onClick={() => session.tryAgain(refusal)}>
              Try it again
            </button>
            <button type="button" className="press" onClick={() => session.dismiss(refusal)}>
              Let it go
            </button>
          </Row>
        </div>
      ))}
    </>
  );
}
