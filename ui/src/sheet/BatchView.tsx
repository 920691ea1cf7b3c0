import { Link, useParams } from "react-router";
import { useFrozen } from "../api/queries";
import { Failure } from "../parts/Failure";
import { TakeCare } from "../parts/notices";
import { lasts, when } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { Pot } from "../pot/Pot";
import { usesOf } from "./words";

/** A batch as it was printed, opened by the code on its card or label. */
export function BatchView() {
  const { code = "" } = useParams();
  const found = useFrozen(code);
  usePlace(found.data ? `${found.data.file.batch.name} · ${code}` : "");
  if (found.error)
    return (
      <div className="mx-auto max-w-3xl p-4">
        <h1 className="wide mb-2 text-xl font-bold">The batch {code}</h1>
        <Failure error={found.error} />
      </div>
    );
  if (!found.data) return <p className="p-6 text-soft">Looking for {code}…</p>;
  const { file } = found.data;
  const { batch } = file;
  return (
    <div className="mx-auto max-w-3xl bg-enamel p-4">
      <p className="narrow text-sm text-soft">
        <span className="bg-tape px-2 py-1 text-base font-semibold text-ink">{found.data.code}</span> as
        printed {when(found.data.frozen_at)}, for {file.job}, in the kit “{file.kit}”
      </p>
      <h1 className="wide mt-3 text-xl font-bold">
        {batch.name}
        {batch.of > 1 && ` ${batch.number} of ${batch.of}`}
      </h1>
      <p className="narrow text-sm">{usesOf(batch).join("; ")}</p>
      <p className="my-3">
        {batch.use_by_h === null
          ? "How long it lives: read the label."
          : `Use within ${lasts((batch.use_by_h - batch.ready_h) * 60)} once ready.`}{" "}
        {batch.pot_test && `Right when like ${batch.pot_test.toLowerCase()}`}
      </p>
      <Pot mix={batch.mix} source={null} kit="" printed={file.measured} />
      <TakeCare texts={batch.cautions} />
      <p className="mt-4 flex flex-wrap gap-2">
        <Link to={`/jobs/${found.data.job_id}/sheet`} className="press">
          To the job as it is now
        </Link>
        <a className="press" href={`/api/batches/${found.data.code}/file`} download>
          Save as a file
        </a>
      </p>
    </div>
  );
}
