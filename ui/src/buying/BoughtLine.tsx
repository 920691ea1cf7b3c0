import { useState } from "react";
import { useDeleteLot, usePurse, usePutLot } from "../api/buying";
import type { LotLine } from "../api/client";
import { useKept } from "../keep/hooks";
import { FieldError, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { minorOf, money, priceFault } from "../parts/say";
import { much } from "./words";

/** Something that was bought today: ticked, and taken back or put right by one press. */
export function BoughtLine({ line }: { line: LotLine }) {
  const { lot, revision } = line;
  const put = usePutLot();
  const remove = useDeleteLot();
  const purse = usePurse();
  const kept = useKept(`lot/${lot.slug}`);
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<{ says: string; allowed: string } | null>(null);
  const name = lot.colour ? `${lot.name}, ${lot.colour}` : lot.name;
  const size = much(lot.size, lot.unit);
  const exponent = purse.data?.exponent ?? 2;
  function pay() {
    const minor = minorOf(typed, exponent);
    if (minor === null) {
      setWrong(priceFault(typed, exponent));
      return;
    }
    setWrong(null);
    put.mutate({ lot: { ...lot, paid_minor: minor }, read: revision });
    setTyped("");
  }
  return (
    <li className="border-t border-line py-1.5">
      <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3">
        <button
          type="button"
          className="press size-11 p-0"
          aria-label={`Not bought: ${name}`}
          aria-pressed
          onClick={() => remove.mutate({ lot, read: revision })}
        >
          <span
            aria-hidden
            className="mx-auto grid size-5 place-items-center border-2 border-current leading-none"
          >
            ×
          </span>
        </button>
        <button
          type="button"
          aria-expanded={open}
          className="min-h-11 text-left text-soft hover:underline"
          onClick={() => setOpen(!open)}
        >
          <span className="block line-through first-letter:uppercase">{name}</span>
          <span className="narrow block text-sm">
            bought{kept.state === "kept here" && ", kept here until the workshop answers"}
            {kept.says && `, refused: ${kept.says}`}
          </span>
        </button>
        <span className="text-right text-soft">
          <span className="numeral block text-lg">
            {lot.count} × {size}
          </span>
          <span className="narrow text-sm">{money(lot.paid_minor ?? null, exponent, lot.currency)}</span>
        </span>
      </div>
      {open && (
        <div className="flex flex-wrap items-end gap-3 pb-2 pl-14">
          <Stepper
            label={`How many of ${name}`}
            value={lot.count}
            min={1}
            max={99}
            shown={`${lot.count} × ${size}`}
            onChange={(count) =>
              put.mutate({
                lot: {
                  ...lot,
                  count,
                  left: lot.size * count,
                  paid_minor:
                    lot.paid_minor == null ? null : Math.round((lot.paid_minor / lot.count) * count),
                },
                read: revision,
              })
            }
          />
          <label className={LABEL}>
            Paid for it all
            <input
              className="tape numeral block w-32 text-lg text-ink"
              inputMode="decimal"
              autoComplete="off"
              value={typed}
              placeholder={exponent ? "12.50" : "12"}
              aria-invalid={wrong ? true : undefined}
              onChange={(e) => setTyped(e.target.value)}
            />
          </label>
          <button type="button" className="press" disabled={!typed.trim()} onClick={pay}>
            Set
          </button>
          {wrong && <FieldError id={`paid-${lot.slug}`} says={wrong.says} allowed={wrong.allowed} />}
        </div>
      )}
    </li>
  );
}
