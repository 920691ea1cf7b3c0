import { Link } from "react-router";
import { useKind } from "../api/workshop";
import { Unread } from "../jobs/Unread";
import { usePlace } from "../parts/usePlace";
import { Backups } from "./Backups";
import { Devices } from "./Devices";
import { PutAway } from "./PutAway";
import { Waiting } from "./Waiting";

/** Where nothing is lost: what waits to be saved, what was put away, and the backups. */
export function KeptView() {
  usePlace("Backups and deleted jobs");
  const kind = useKind();
  return (
    <div className="mx-auto max-w-4xl px-4 py-6 sm:px-8">
      <Link to="/" className="inline-flex min-h-11 items-center underline">
        Jobs
      </Link>
      <h1 className="wide text-xl font-bold">Backups and deleted jobs</h1>
      <Waiting />
      <Unread />
      <PutAway />
      {kind === "keeps" ? (
        <>
          <Backups />
          <Devices />
        </>
      ) : (
        <p className="mt-6 border-t-2 border-ink pt-3">
          This device {kind === "looks" ? "looks only: nothing that is entered here is saved" : "works"}.
          Backups, the way back and other devices are for one that keeps the workshop, and for the machine
          Lumso runs on.
        </p>
      )}
    </div>
  );
}
