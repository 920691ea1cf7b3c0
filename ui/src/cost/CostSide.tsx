import { useState } from "react";
import { Link } from "react-router";
import { useCost, useFinishCosts, usePurse, usePutPurse } from "../api/buying";
import { Price } from "../buying/PurseFields";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { Loading } from "../parts/notices";
import { say } from "../parts/say";
import type { CostLine } from "./words";
import { BASES, KINDS } from "./words";

interface CostSideProps {
  open: OpenJob;
  zone: number;
}

/** What the piece costs, line by line, each with its working; and what each finish would. */
export function CostSide({ open, zone }: CostSideProps) {
  const job = open.id;
  const cost = useCost(job);
  const purse = usePurse();
  const put = usePutPurse();
  if (cost.error && !cost.data) return <Failure error={cost.error} onRetry={() => void cost.refetch()} />;
  if (!cost.data || !purse.data) return <Loading>Adding it up…</Loading>;
  const { data } = cost;
  const here = purse.data;
  const piece = here.purse.pieces.find((p) => p.job === job)?.minor ?? 0;
  const stale = open.stale || open.saveState !== "saved";
  return (
    <>
      <section
        aria-label="What it costs"
        className="min-w-0 px-4 py-4 sm:px-6"
        data-stale={stale || undefined}
      >
        <p className="narrow text-sm font-semibold text-soft">
          The least it can be sold for, {BASES[data.basis]}
        </p>
        <p className="numeral text-3xl">{data.floor}</p>
        <p className="narrow mt-1 text-sm text-soft">
          {data.with_tax ? "Prices with tax" : "Prices without tax"}
          {data.prices_on && `, of ${data.prices_on}`}.{" "}
          <Link to="/buying" className="underline">
            Prices and rates
          </Link>
        </p>
        {data.unpriced.length > 0 && (
          <p className="mt-2 border-l-4 border-ink pl-2">
            Without {data.unpriced.join(", ")}: no price is known, and nothing is counted for it.
          </p>
        )}
        <ul className="mt-3">
          {data.lines.map((line) => (
            <Opened key={line.kind + line.says + line.working.join()} line={line} />
          ))}
        </ul>
        <div className="mt-4 max-w-56">
          <Price
            label="What the piece itself cost"
            minor={piece}
            here={here}
            onChange={(minor) =>
              put.mutate({
                purse: {
                  ...here.purse,
                  pieces: [...here.purse.pieces.filter((p) => p.job !== job), { job, minor }],
                },
                read: here.revision,
                typed: true,
              })
            }
          />
        </div>
      </section>
      <Finishes job={job} zone={open.job.zones[zone]?.id ?? ""} name={open.job.zones[zone]?.name ?? ""} />
    </>
  );
}

function Opened({ line }: { line: CostLine }) {
  return (
    <li className="border-t border-line">
      <details data-paper>
        <summary className="grid min-h-11 grid-cols-[1fr_auto] items-center gap-3 py-1 hover:underline">
          <span>
            <span className="block first-letter:uppercase">{line.says}</span>
            <span className="narrow block text-sm text-soft">{KINDS[line.kind]}</span>
          </span>
          <span className="numeral text-lg">{line.shown}</span>
        </summary>
        <ul className="narrow pb-2 pl-3 text-sm">
          {line.working.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ul>
      </details>
    </li>
  );
}

/** The finishes that a zone's ground takes, side by side. */
function Finishes({ job, zone, name }: { job: string; zone: string; name: string }) {
  const [asked, setAsked] = useState(false);
  const found = useFinishCosts(job, zone, asked);
  return (
    <section aria-label="What other finishes would cost" className="min-w-0 px-4 py-4 sm:px-6">
      <h2 className="text-base font-bold">What each finish would cost on {name.toLowerCase()}</h2>
      {!asked && (
        <button type="button" className="press mt-2" onClick={() => setAsked(true)}>
          Work them out
        </button>
      )}
      {asked && found.isFetching && !found.data && <Loading>Working each finish out…</Loading>}
      {found.error && <Failure error={found.error} onRetry={() => void found.refetch()} />}
      {found.data && (
        <div className="overflow-x-auto">
          <table className="mt-2 w-full text-left">
            <thead>
              <tr className="narrow text-sm text-soft">
                <th scope="col">Finish</th>
                <th scope="col" className="text-right">
                  Money
                </th>
                <th scope="col" className="text-right">
                  Hours
                </th>
                <th scope="col" className="text-right">
                  Days
                </th>
              </tr>
            </thead>
            <tbody>
              {found.data.map((one) => (
                <tr key={one.slug || "now"} className="border-t border-line align-top">
                  <th scope="row" className={`py-2 pr-2 ${one.now ? "font-bold" : "font-normal"}`}>
                    {one.name}
                    {one.unpriced.length > 0 && (
                      <span className="narrow block text-sm font-normal text-soft">
                        without {one.unpriced.join(", ")}
                      </span>
                    )}
                  </th>
                  <td className="numeral py-2 text-right text-lg whitespace-nowrap">{one.money}</td>
                  <td className="numeral py-2 pl-3 text-right text-lg">{say(one.hours)}</td>
                  <td className="numeral py-2 pl-3 text-right text-lg">{one.days}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="narrow mt-2 text-sm text-soft">Estimates, for this zone alone, at today’s prices.</p>
        </div>
      )}
    </section>
  );
}
