import { useState } from "react";
import { type PurseHere, useBuying, usePurse, usePutPurse } from "../api/buying";
import type { Buying, BuyingLine, LotLine } from "../api/client";
import { Failure } from "../parts/Failure";
import { Loading } from "../parts/notices";
import { clockTime } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { BoughtLine } from "./BoughtLine";
import { Line } from "./Line";
import { PurseFields } from "./PurseFields";
import { Standing } from "./Standing";
import { boughtLately, keyOf } from "./words";

/** What to buy for the jobs one is at, aisle by aisle, to tick in the shop; and what was bought. */
export function BuyingView() {
  usePlace("Buying");
  const purse = usePurse();
  const buying = useBuying();
  if (purse.error && !purse.data) return <Failure error={purse.error} onRetry={() => void purse.refetch()} />;
  if (!purse.data) return <Loading>Counting what is there…</Loading>;
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <h1 className="wide text-xl font-bold">Buying</h1>
      <For here={purse.data} />
      {buying.error && !buying.data && <Failure error={buying.error} onRetry={() => void buying.refetch()} />}
      {!buying.data && !buying.error && <Loading>Looking for the cheapest packs…</Loading>}
      {buying.data && (
        <div className="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
          <List here={purse.data} buying={buying.data} lots={buying.lots} asking={buying.asking} />
          <div className="min-w-0">
            <Standing lots={buying.lots} promises={buying.data.shopping.promises} />
            <PurseFields here={purse.data} />
          </div>
        </div>
      )}
    </div>
  );
}

/** The jobs that are bought for. */
function For({ here }: { here: PurseHere }) {
  const put = usePutPurse();
  const chosen = here.purse.jobs.length
    ? here.purse.jobs
    : here.jobs.filter((j) => j.chosen).map((j) => j.id);
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 items-center underline">
        For{" "}
        {here.jobs
          .filter((j) => chosen.includes(j.id))
          .map((j) => j.name)
          .join(", ") || "no job"}
      </summary>
      <ul className="grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3">
        {here.jobs.map((job) => (
          <li key={job.id}>
            <label className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={chosen.includes(job.id)}
                disabled={chosen.length === 1 && chosen.includes(job.id)}
                onChange={(e) => {
                  const jobs = e.target.checked ? [...chosen, job.id] : chosen.filter((id) => id !== job.id);
                  put.mutate({ purse: { ...here.purse, jobs }, read: here.revision });
                }}
              />
              {job.name}
            </label>
          </li>
        ))}
      </ul>
    </details>
  );
}

interface ListProps {
  here: PurseHere;
  buying: Buying;
  lots: LotLine[];
  asking: boolean;
}

function List({ here, buying, lots, asking }: ListProps) {
  const { shopping } = buying;
  const [open, setOpen] = useState("");
  const fresh = lots.filter((l) => boughtLately(l.lot, buying.made_min));
  // What was ticked here and is not counted in this list yet.
  const counted = new Set(buying.lots.map((l) => l.lot.slug));
  const since = new Set(fresh.filter((l) => !counted.has(l.lot.slug)).map((l) => keyOf(l.lot)));
  const lines = shopping.lines.filter((l) => !since.has(l.key));
  const aisleOf = new Map(here.items.map((i) => [i.slug, i.aisle]));
  const aisles = [...new Set(here.items.map((i) => i.aisle))];
  const order = aisles.sort((a, b) => place(shopping.lines, a) - place(shopping.lines, b));
  const stale = since.size > 0;
  return (
    <section aria-label="To buy" className="min-w-0">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 border-b-2 border-ink pb-2">
        <p data-stale={stale || undefined}>
          <span className="narrow text-sm font-semibold text-soft">Still to pay, about </span>
          <span className="numeral text-2xl">{shopping.total}</span>
        </p>
        <p className="narrow text-sm text-soft">
          {here.purse.with_tax ? "with tax" : "without tax"}
          {here.purse.prices_on && `, prices of ${here.purse.prices_on}`}
          {!shopping.proven && "; the search was ended before it was sure"}
          {asking && "; being worked out again"}
        </p>
      </div>
      {shopping.unpriced.length > 0 && (
        <p className="narrow mt-1 text-sm">
          Without {shopping.unpriced.join(", ")}: no price is known. Open a line to say what it costs.
        </p>
      )}
      {shopping.bundles.map((says) => (
        <p key={says} className="narrow mt-1 text-sm font-semibold">
          {says}
        </p>
      ))}
      {lines.length + fresh.length === 0 && <p className="mt-4 text-lg">Nothing is short.</p>}
      {order.map((aisle) => {
        const mine = lines.filter((l) => l.aisle === aisle);
        const got = fresh.filter((l) => aisleOf.get(l.lot.item) === aisle);
        if (!mine.length && !got.length) return null;
        return (
          <div key={aisle} className="mt-5">
            <h2 className="text-base font-bold first-letter:uppercase">{aisle}</h2>
            <ul>
              {mine.map((line) => (
                <Line
                  key={line.key}
                  line={line}
                  here={here}
                  open={open === line.key}
                  onOpen={() => setOpen(open === line.key ? "" : line.key)}
                />
              ))}
              {got.map((l) => (
                <BoughtLine key={l.lot.slug} line={l} />
              ))}
            </ul>
          </div>
        );
      })}
      {shopping.ready.length > 0 && (
        <p className="narrow mt-5 text-sm">
          <strong>Have ready</strong>, it lasts: {shopping.ready.join(", ")}.
        </p>
      )}
      <p className="narrow mt-5 text-sm text-soft">
        Amounts are estimates, with the margin chosen for each job. Made {clockTime(buying.made_min)}.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <a className="press" href="/api/buying/list.pdf" download>
          Print it
        </a>
        <a className="press" href="/api/buying/list.txt" download>
          As plain text
        </a>
        <a className="press" href="/api/buying/list.csv" download>
          As a spreadsheet
        </a>
      </div>
    </section>
  );
}

const place = (lines: BuyingLine[], aisle: string) => {
  const at = lines.findIndex((l) => l.aisle === aisle);
  return at < 0 ? lines.length : at;
};
