import { Link } from "react-router";
import { useDaysChosen, usePutDays } from "../api/days";
import { withMore } from "./change";

/** A job goes into the days by one press; where it is in them, the way there. */
export function IntoDays({ job }: { job: string }) {
  const { data } = useDaysChosen();
  const put = usePutDays();
  if (!data) return null;
  if (data.chosen.jobs.some((one) => one.job === job))
    return (
      <Link to="/days" className="press inline-flex items-center">
        Its days
      </Link>
    );
  return (
    <button
      type="button"
      className="press"
      onClick={() => put.mutate({ chosen: withMore(data.chosen, job), read: data.revision })}
    >
      Into the days
    </button>
  );
}
