import { Link } from "react-router";
import { useBackups } from "../api/workshop";
import { Alert } from "../parts/notices";

/** Said where one begins: no copy of the workshop could be made for days. */
export function NoCopies() {
  const days = useBackups().data?.overdue_days ?? 0;
  if (!days) return null;
  return (
    <div className="mx-auto max-w-6xl px-4 pt-6 sm:px-8">
      <Alert>
        <p>
          No backup could be made for {days} days. What is here is safe as long as this disk is.{" "}
          <Link to="/kept" className="underline">
            To the backups
          </Link>
        </p>
      </Alert>
    </div>
  );
}
