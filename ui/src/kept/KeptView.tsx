import { Link } from "react-router";
import { Unread } from "../jobs/Unread";
import { usePlace } from "../parts/usePlace";
import { Backups } from "./Backups";
import { Devices } from "./Devices";
import { PutAway } from "./PutAway";
import { Waiting } from "./Waiting";

/** Where nothing is lost: what waits to be saved, what was put away, and the backups. */
export function KeptView() {
  usePlace("Kept");
  return (
    <div className="mx-auto max-w-4xl px-4 py-6 sm:px-8">
      <Link to="/" className="inline-flex min-h-11 items-center underline">
        Jobs
      </Link>
      <h1 className="wide text-xl font-bold">Kept</h1>
      <Waiting />
      <Unread />
      <PutAway />
      <Backups />
      <Devices />
    </div>
  );
}
