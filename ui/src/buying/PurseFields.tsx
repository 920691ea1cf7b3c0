import { useState } from "react";
import { type PurseHere, usePutPurse } from "../api/buying";
import type { Purse } from "../api/client";
import { ChooserField } from "../parts/ChooserField";
import { FieldError, NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { minorOf, money, priceFault } from "../parts/say";
import { Packs } from "./Packs";

/** All that can be bought, to choose from. */
const optionsOf = (here: PurseHere) =>
  here.items.map((i) => ({ slug: i.slug, name: i.name, family: i.aisle }));

/** The currency, what an hour is worth, overhead and tax; and what anything costs. */
export function PurseFields({ here }: { here: PurseHere }) {
  const put = usePutPurse();
  const [item, setItem] = useState("");
  const { purse } = here;
  const keep = (made: Partial<Purse>) =>
    put.mutate({ purse: { ...purse, ...made }, read: here.revision, typed: true });
  const chosen = here.items.find((i) => i.slug === item);
  return (
    <details className="mt-8 border-t-2 border-ink">
      <summary className="inline-flex min-h-11 items-center text-base font-bold underline">
        Prices and rates
      </summary>
      <div className="grid gap-3">
        <div className="grid grid-cols-2 items-end gap-3">
          <Currency purse={purse} onChange={(currency) => keep({ currency })} />
          <label className={LABEL}>
            Prices looked at on
            <input
              type="date"
              className="tape block w-full text-base text-ink"
              value={purse.prices_on}
              onChange={(e) => keep({ prices_on: e.target.value })}
            />
          </label>
          <Price
            label="An hour of yours"
            minor={purse.hour_minor}
            here={here}
            onChange={(hour_minor) => keep({ hour_minor })}
          />
          <NumberField
            label="Overhead"
            value={purse.overhead_percent}
            unit="%"
            min={0}
            max={300}
            onChange={(overhead_percent) => keep({ overhead_percent })}
          />
        </div>
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={purse.with_tax}
            onChange={(e) => keep({ with_tax: e.target.checked })}
          />
          Prices are with tax
        </label>
        {!purse.with_tax && (
          <NumberField
            label="Tax on top"
            value={purse.tax_percent}
            unit="%"
            min={0}
            max={50}
            onChange={(tax_percent) => keep({ tax_percent })}
          />
        )}
        <ChooserField
          label="What something costs"
          of="things"
          value={item}
          empty="Choose a material or a thing"
          options={optionsOf(here)}
          onChoose={setItem}
        />
        {chosen && (
          <Packs key={chosen.slug} item={chosen.slug} name={chosen.name} unit={chosen.unit} here={here} />
        )}
        <Deals here={here} onChange={(deals) => keep({ deals })} />
      </div>
    </details>
  );
}

/** Three letters, or none. */
function Currency({ purse, onChange }: { purse: Purse; onChange: (currency: string) => void }) {
  const [typed, setTyped] = useState(purse.currency);
  const bad = !/^([A-Z]{3})?$/.test(typed);
  return (
    <label className={LABEL}>
      Currency
      <input
        className="tape block w-full text-lg text-ink"
        value={typed}
        maxLength={3}
        autoComplete="off"
        aria-invalid={bad || undefined}
        aria-describedby={bad ? "currency-error" : undefined}
        onChange={(e) => {
          const code = e.target.value.toUpperCase();
          setTyped(code);
          if (/^([A-Z]{3})?$/.test(code)) onChange(code);
        }}
      />
      {bad && (
        <FieldError
          id="currency-error"
          says={`${typed} is no currency.`}
          allowed="three letters, or nothing"
        />
      )}
    </label>
  );
}

interface PriceProps {
  label: string;
  minor: number;
  here: PurseHere;
  onChange: (minor: number) => void;
}

/** An amount of money, as it is typed. */
export function Price({ label, minor, here, onChange }: PriceProps) {
  const shown = minor ? money(minor, here.exponent, "") : "";
  const [typed, setTyped] = useState(shown);
  const [wrong, setWrong] = useState<{ says: string; allowed: string } | null>(null);
  function read(text: string) {
    setTyped(text);
    const read = text.trim() ? minorOf(text, here.exponent) : 0;
    setWrong(read === null ? priceFault(text, here.exponent) : null);
    if (read !== null) onChange(read);
  }
  return (
    <label className={LABEL}>
      {label}
      <input
        className="tape numeral block w-full text-lg text-ink"
        inputMode="decimal"
        autoComplete="off"
        value={typed}
        aria-invalid={wrong ? true : undefined}
        onChange={(e) => read(e.target.value)}
      />
      {wrong && <FieldError id={`price-${label}`} says={wrong.says} allowed={wrong.allowed} />}
    </label>
  );
}

/** Bundles: so many packs for a price, over colours or sizes. */
function Deals({ here, onChange }: { here: PurseHere; onChange: (deals: Purse["deals"]) => void }) {
  const { purse } = here;
  const [item, setItem] = useState("");
  const [count, setCount] = useState(2);
  const [minor, setMinor] = useState(0);
  const name = here.items.find((i) => i.slug === item)?.name ?? item;
  return (
    <div>
      <h3 className={LABEL}>So many for a price, in any colours</h3>
      <ul>
        {purse.deals.map((deal, n) => (
          <li
            key={deal.name}
            className="flex flex-wrap items-center justify-between gap-2 border-t border-line"
          >
            <span>
              {deal.name}: {deal.count} for {money(deal.price_minor, here.exponent, purse.currency)}
            </span>
            <button
              type="button"
              className="press text-sm"
              aria-label={`Take out: ${deal.name}`}
              onClick={() => onChange(purse.deals.filter((_, k) => k !== n))}
            >
              Take out
            </button>
          </li>
        ))}
      </ul>
      <div data-asked className="mt-1 grid grid-cols-2 items-end gap-2">
        <ChooserField
          label="Of"
          of="things"
          value={item}
          empty="Choose"
          options={optionsOf(here)}
          onChoose={setItem}
        />
        <NumberField label="How many" value={count} unit="" min={2} max={20} onChange={setCount} />
        <Price label="Together" minor={minor} here={here} onChange={setMinor} />
        <button
          type="button"
          className="press"
          disabled={!item || !minor}
          onClick={() => {
            onChange([
              ...purse.deals,
              {
                name: `${count} of ${name}`,
                count: Math.round(count),
                price_minor: minor,
                items: [item],
                size: 0,
              },
            ]);
            setItem("");
          }}
        >
          Add
        </button>
      </div>
    </div>
  );
}
