import { Link } from "react-router";
import { useDaysChosen, usePutDays } from "../api/days";
import { withMore } from "./change";

/** As wide whatever it says, and before it is known what: what stands beside it is not moved from under a finger. */
const WIDE = "press inline-flex min-w-32 items-center justify-center";

/** A job goes into the days by one press; where it is in them, the way there. */
export function IntoDays({ job }: { job: string }) {
  const { data } = useDaysChosen();
  const put = usePutDays();
  if (!data) return <span aria-hidden className={`${WIDE} invisible`} />;
  if (data.chosen.jobs.some((one) => one.job === job))
    return (
      <Link to="/days" className={WIDE}>
        Its days
      </Link>
    );
  return (
    <button
      type="button"
      className={WIDE}
      onClick={() => put.mutate({ chosen: withMore(data.chosen, job), read: data.revision })}
    >
      Into the days
    </button>
  );
}
