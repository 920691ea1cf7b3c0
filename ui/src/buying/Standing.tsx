import { useState } from "react";
import { useDeleteLot, usePutLot } from "../api/buying";
import type { Buying, LotLine } from "../api/client";
import { NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { much } from "./words";

interface Props {
  lots: LotLine[];
  promises: Buying["shopping"]["promises"];
}

/** What was bought and stands in the workshop: what is left of it, and for whom. */
export function Standing({ lots, promises }: Props) {
  const [open, setOpen] = useState("");
  const jars = promises.filter((p) => !lots.some((l) => l.lot.slug === p.lot) && !p.lot.startsWith("shelf:"));
  return (
    <section aria-label="Standing here">
      <h2 className="border-b-2 border-ink pb-1 text-base font-bold">Standing here</h2>
      {lots.length === 0 && (
        <p className="narrow mt-1 text-sm text-soft">
          What you tick as bought comes here, with its date and what it cost.
        </p>
      )}
      <ul>
        {lots.map((line) => {
          const { lot } = line;
          const mine = promises.filter((p) => p.lot === lot.slug);
          const name = lot.colour ? `${lot.name}, ${lot.colour}` : lot.name;
          return (
            <li key={lot.slug} className="border-b border-line">
              <button
                type="button"
                aria-expanded={open === lot.slug}
                className="grid min-h-11 w-full grid-cols-[1fr_auto] items-center gap-2 py-1 text-left hover:underline"
                onClick={() => setOpen(open === lot.slug ? "" : lot.slug)}
              >
                <span className="min-w-0">
                  <span className="block first-letter:uppercase">{name}</span>
                  {mine.length > 0 && (
                    <span className="narrow block text-sm text-soft">
                      promised to {[...new Set(mine.map((p) => p.job_name))].join(", ")}
                    </span>
                  )}
                </span>
                <span className="numeral text-lg">{much(line.left_now, lot.unit)}</span>
              </button>
              {open === lot.slug && <Count line={line} />}
            </li>
          );
        })}
      </ul>
      {jars.length > 0 && (
        <>
          <h3 className="narrow mt-3 text-sm font-semibold text-soft">From jars of what was mixed before</h3>
          <ul className="narrow text-sm">
            {jars.map((p) => (
              <li key={p.need}>
                {much(p.amount, p.unit)} for {p.job_name}: {p.says}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Count({ line }: { line: LotLine }) {
  const { lot, revision } = line;
  const put = usePutLot();
  const remove = useDeleteLot();
  return (
    <div className="grid gap-2 pb-3">
      <p className="narrow text-sm">
        {lot.bought_on && `Bought ${lot.bought_on}`}
        {line.paid && `, ${line.paid}`}. {much(line.free, lot.unit)} promised to nobody.
      </p>
      <div className="grid grid-cols-2 items-end gap-2">
        <NumberField
          label="Left, as counted now"
          value={Math.round(line.left_now * 10) / 10}
          unit={lot.unit === "piece" ? "" : lot.unit}
          min={0}
          max={lot.size * lot.count}
          onChange={(left) =>
            put.mutate({
              lot: { ...lot, left, counted_min: Math.floor(Date.now() / 60_000) },
              read: revision,
              typed: true,
            })
          }
        />
        <label className={LABEL}>
          Keeps until
          <input
            type="date"
            className="tape block w-full text-base text-ink"
            value={lot.keeps_until}
            onChange={(e) => put.mutate({ lot: { ...lot, keeps_until: e.target.value }, read: revision })}
          />
        </label>
      </div>
      <button
        type="button"
        className="press justify-self-start text-sm"
        onClick={() => remove.mutate({ lot, read: revision })}
      >
        Take it off the shelf
      </button>
    </div>
  );
}
