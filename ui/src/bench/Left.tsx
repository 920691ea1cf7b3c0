import { useState } from "react";
import type { Act, ByScale, PotNow, ScaleNow } from "../api/client";
import { NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { grams, ml } from "../parts/say";

interface Props {
  pot: PotNow;
  scale: ScaleNow | null;
  byScale: ByScale | null;
  onAct: (says: string, act: Act) => void;
}

const CLOSED = [
  ["lid", "Under a lid"],
  ["wrapped", "Wrapped"],
  ["open", "Open"],
] as const;

/** What is left in the pot when the tools are cleaned: nothing, so much by weight, about so much. */
export function Left({ pot, scale, byScale, onAct }: Props) {
  const [closed, setClosed] = useState<"lid" | "wrapped" | "open">("lid");
  const { held_g: held, held_ml: volume, density } = pot;
  const [about, setAbout] = useState(Math.round(volume * 0.2));
  const weighed =
    scale?.state === "listening" && byScale?.g !== null && byScale?.g !== undefined ? byScale.g : null;
  const left = (g: number, by: "scale" | "feel") =>
    onAct(g > 0 ? `Left: ${grams(g)}` : "The pot is empty", {
      act: "left",
      pot: pot.pot.pot,
      g,
      by,
      closed,
      place: "",
    });
  return (
    <div>
      <p className="text-xl font-bold">What is left in the pot?</p>
      <p className="narrow">
        {pot.batch?.name}
        {pot.batch?.colour && <span className="ml-1.5 bg-tape px-1">{pot.batch.colour}</span>}: {grams(held)},{" "}
        {ml(volume)} were mixed. Its code is <strong className="numeral">{pot.pot.begun?.code}</strong>: write
        it on the jar.
      </p>
      <fieldset className="mt-3 flex flex-wrap pl-0.5 [&>button]:-ml-0.5">
        <legend className={LABEL}>Kept</legend>
        {CLOSED.map(([slug, name]) => (
          <button
            key={slug}
            type="button"
            className="press min-h-[56px]"
            aria-pressed={closed === slug}
            onClick={() => setClosed(slug)}
          >
            {name}
          </button>
        ))}
      </fieldset>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <button type="button" className="press min-h-[72px] px-6 text-lg" onClick={() => left(0, "scale")}>
          Nothing
        </button>
        {weighed !== null && weighed > 0.5 && weighed < held * 1.05 && (
          <button
            type="button"
            className="press min-h-[72px] px-6 text-lg"
            onClick={() => left(weighed, "scale")}
          >
            {grams(weighed)} by the scale
          </button>
        )}
        <div className="w-32">
          <NumberField label="About" unit="ml" value={about} min={0} max={100_000} onChange={setAbout} />
        </div>
        <button
          type="button"
          className="press min-h-[72px] px-6 text-lg"
          onClick={() => left(about * density, "feel")}
        >
          About that much
        </button>
      </div>
    </div>
  );
}
