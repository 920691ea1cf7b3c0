import { useState } from "react";
import { type PurseHere, usePutPurse } from "../api/buying";
import type { Lot } from "../api/client";
import { FieldError, NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { minorOf, money, priceFault, say } from "../parts/say";
import { sound } from "../parts/sound";
import { much } from "./words";

interface PacksProps {
  item: string;
  name: string;
  unit: Lot["unit"];
  here: PurseHere;
}

/** The sizes something is sold in, what they cost, the one that is always bought, and what is never run below. */
export function Packs({ item, name, unit, here }: PacksProps) {
  const put = usePutPurse();
  const { purse, exponent, revision } = here;
  const stocked = purse.stocked.find((s) => s.item === item) ?? { item, packs: [], prefers: 0, least: 0 };
  const [size, setSize] = useState(unit === "ml" || unit === "g" ? 500 : 1);
  const [price, setPrice] = useState("");
  const [wrong, setWrong] = useState<{ says: string; allowed: string } | null>(null);
  function keep(made: Partial<typeof stocked>) {
    const others = purse.stocked.filter((s) => s.item !== item);
    put.mutate({ purse: { ...purse, stocked: [...others, { ...stocked, ...made }] }, read: revision });
  }
  function add() {
    const minor = price.trim() ? minorOf(price, exponent) : null;
    if (price.trim() && minor === null) {
      setWrong(priceFault(price, exponent));
      return;
    }
    setWrong(null);
    keep({ packs: [...stocked.packs, { size, unit, price_minor: minor, at: "" }] });
    setPrice("");
  }
  return (
    <div>
      <h3 className={LABEL}>Sold in</h3>
      <ul>
        {stocked.packs.map((pack, n) => (
          <li
            key={`${pack.size}${pack.unit}${pack.price_minor}`}
            className="flex flex-wrap items-center gap-3"
          >
            <span className="numeral min-w-32">
              {much(pack.size, pack.unit)}, {money(pack.price_minor ?? null, exponent, purse.currency)}
            </span>
            <label className="narrow flex min-h-11 items-center gap-1 text-sm">
              <input
                type="checkbox"
                className="size-5"
                checked={stocked.prefers === n + 1}
                onChange={(e) => keep({ prefers: e.target.checked ? n + 1 : 0 })}
              />
              always this
            </label>
            <button
              type="button"
              className="press text-sm"
              aria-label={`Take out the pack of ${say(pack.size)} ${pack.unit} of ${name}`}
              onClick={() =>
                keep({
                  packs: stocked.packs.filter((_, k) => k !== n),
                  prefers:
                    stocked.prefers === n + 1 ? 0 : stocked.prefers - (stocked.prefers > n + 1 ? 1 : 0),
                })
              }
            >
              Take out
            </button>
          </li>
        ))}
      </ul>
      <div data-asked className="mt-1 grid max-w-md grid-cols-[1fr_1fr_auto] items-end gap-2">
        <NumberField
          label="A pack of"
          value={size}
          unit={unit === "piece" ? "" : unit}
          min={0.1}
          max={100000}
          onChange={setSize}
        />
        <label className={LABEL}>
          costs
          <input
            className="tape numeral block w-full text-lg text-ink"
            inputMode="decimal"
            autoComplete="off"
            value={price}
            placeholder={exponent ? "12.50" : "12"}
            aria-invalid={wrong ? true : undefined}
            aria-describedby={wrong ? `price-${item}` : undefined}
            onChange={(e) => {
              setPrice(e.target.value);
              setWrong(null);
            }}
          />
        </label>
        <button type="button" className="press" onClick={(e) => sound(e.currentTarget) && add()}>
          Add
        </button>
      </div>
      {wrong && <FieldError id={`price-${item}`} says={wrong.says} allowed={wrong.allowed} />}
      <div className="mt-2 max-w-52">
        <NumberField
          label="Never run below"
          value={stocked.least}
          unit={unit === "piece" ? "" : unit}
          min={0}
          max={100000}
          onChange={(least) => keep({ least })}
        />
      </div>
    </div>
  );
}
