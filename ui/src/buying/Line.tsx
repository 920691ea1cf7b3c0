import { type PurseHere, useChoices, usePutLot, usePutPurse } from "../api/buying";
import type { BuyingLine } from "../api/client";
import { Failure } from "../parts/Failure";
import { clockTime, money, newId } from "../parts/say";
import { Packs } from "./Packs";
import { lotsOf, much } from "./words";

interface LineProps {
  line: BuyingLine;
  here: PurseHere;
  open: boolean;
  onOpen: () => void;
}

/** Something to buy: one press says it was, as it is listed. */
export function Line({ line, here, open, onOpen }: LineProps) {
  const put = usePutLot();
  const packs = line.packs.map((p) => p.says).join(" + ");
  const name = line.colour ? `${line.name}, ${line.colour}` : line.name;
  return (
    <li className="border-t border-line py-1.5">
      <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3">
        <button
          type="button"
          className="press size-11 p-0"
          aria-label={`Bought: ${name}`}
          onClick={() => {
            for (const lot of lotsOf(line, here.purse.currency, here.purse.with_tax, newId))
              put.mutate({ lot, read: 0 });
          }}
        >
          <span aria-hidden className="mx-auto block size-5 border-2 border-ink" />
        </button>
        <button
          type="button"
          aria-expanded={open}
          className="flex min-h-11 items-center gap-3 text-left hover:underline"
          onClick={onOpen}
        >
          {line.hex && (
            <span
              aria-hidden
              className="size-6 shrink-0 border-2 border-ink"
              style={{ background: line.hex }}
            />
          )}
          <span className="min-w-0">
            <span className="block font-semibold first-letter:uppercase">{name}</span>
            <span className="narrow block text-sm text-soft">
              for {much(line.buys, line.unit)}
              {line.kept_out > 0 && `; ${much(line.kept_out, line.unit)} stands there`}
            </span>
          </span>
        </button>
        <span className="text-right">
          <span className="numeral block text-lg">{packs || "no pack known"}</span>
          <span className="narrow text-sm">
            {money(line.minor ?? null, here.exponent, here.purse.currency)}
          </span>
        </span>
      </div>
      {open && <More line={line} here={here} />}
    </li>
  );
}

function More({ line, here }: { line: BuyingLine; here: PurseHere }) {
  const choices = useChoices(line.key, line.packs.length > 0);
  const putPurse = usePutPurse();
  const split = here.purse.may_split.includes(line.item);
  return (
    <div className="grid gap-4 pb-3 pl-14">
      {line.notes.map((note) => (
        <p key={note} className="narrow border-l-4 border-soft pl-2 text-sm">
          {note}
        </p>
      ))}
      {line.kept_out > 0 && (
        <div>
          <p className="narrow text-sm">
            {much(line.kept_out, line.unit)} of it stands there and is left out: it is not enough for a whole
            batch, and tins of a colour differ.
          </p>
        </div>
      )}
      {line.hex && (
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={split}
            onChange={(e) => {
              const may_split = e.target.checked
                ? [...here.purse.may_split, line.item]
                : here.purse.may_split.filter((i) => i !== line.item);
              putPurse.mutate({ purse: { ...here.purse, may_split }, read: here.revision });
            }}
          />
          Tins of {line.name.toLowerCase()} may be used together: I stir them into one first
        </label>
      )}
      <ul className="narrow text-sm">
        {line.uses.map((use) => (
          <li key={use.job + use.says + use.at_min}>
            {much(use.amount, line.unit)}: {use.job_name}, {use.says}, {clockTime(use.at_min)}
          </li>
        ))}
        {line.promised > 0 && <li>{much(line.promised, line.unit)} is there and promised.</li>}
        {line.least > 0 && <li>{much(line.least, line.unit)} to keep on the shelf.</li>}
        {line.over > 0 && <li>{much(line.over, line.unit)} will be over.</li>}
      </ul>
      {choices.data && choices.data.length > 1 && (
        <div>
          <h3 className="narrow text-sm font-semibold text-soft">What none of the others beats</h3>
          <ul className="narrow text-sm">
            {choices.data.map((c) => (
              <li key={c.packs}>
                {c.packs}: {c.money}, {c.over} over
              </li>
            ))}
          </ul>
        </div>
      )}
      {choices.error && <Failure error={choices.error} onRetry={() => void choices.refetch()} />}
      <Packs item={line.item} name={line.name} unit={line.unit} here={here} />
    </div>
  );
}
