import { useState } from "react";
import type { Board, SeenColour, Strip, Verdict } from "../api/boards";
import type { Catalogue } from "../api/client";
import { useChip, useSeen } from "../api/look";
import { Chip } from "../drawings/Chip";
import { Range } from "../drawings/DryingStrip";
import type { OpenJob } from "../job/useJob";
import { LABEL } from "../parts/notices";
import { TextField } from "../parts/TextField";
import { PhotoColour } from "./PhotoColour";

const VERDICTS: Verdict[] = [
  "as wanted",
  "too strong",
  "too weak",
  "too dark",
  "too pale",
  "lifted",
  "blotchy",
  "came off",
];

const CHIPS = [
  { of: "darkest", says: "darkest" },
  { of: "darker", says: "darker" },
  { of: "hex", says: "as expected" },
  { of: "paler", says: "paler" },
  { of: "palest", says: "palest" },
] as const;

interface StripPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  board: Board;
  strip: Strip;
  onChange: (part: Partial<Strip>) => void;
}

/** One strip, dry and sealed: judged in words, seen as a colour, photographed. */
export function StripPanel({ open, catalogue, board, strip, onChange }: StripPanelProps) {
  const within = catalogue.seen_within;
  const zone = open.job.zones.find((z) => z.id === strip.zone);
  const chip = useChip({ job: open.job, zone: strip.zone }, 320);
  const said = useSeen(open.job, strip.zone).data;
  const [photo, setPhoto] = useState(false);
  const see = (seen: SeenColour | null) => onChange({ seen });
  const expected = said?.column.top;

  return (
    <div className="flex flex-col gap-4">
      <div className="grid grid-cols-[8rem_1fr] gap-3">
        <Chip
          address={chip.address}
          old={chip.old}
          says={`Strip ${strip.code}: ${said?.afar_words ?? ""}, an estimate`}
          className="w-full"
        />
        <div>
          <h2 className="font-bold">
            <span className="numeral text-2xl">{strip.code}</span> {zone?.name.replace(`${strip.code}: `, "")}
          </h2>
          {said && expected && (
            <p className="narrow text-sm">
              Expected: {said.afar_words}, <Range shade={expected} />. Judge it dry and sealed, in daylight,
              from a few steps away.
            </p>
          )}
        </div>
      </div>
      <fieldset>
        <legend className={LABEL}>It is</legend>
        <div className="grid grid-cols-2 pt-0.5 pl-0.5 sm:grid-cols-4 [&>*]:-mt-0.5 [&>*]:-ml-0.5">
          {VERDICTS.map((v) => (
            <button
              key={v}
              type="button"
              aria-pressed={strip.verdict === v}
              className={`press text-sm ${strip.verdict === v ? "press-strong" : ""}`}
              onClick={() => onChange({ verdict: strip.verdict === v ? "" : v })}
            >
              {v}
            </button>
          ))}
        </div>
      </fieldset>
      <TextField label="Note" value={strip.note} max={500} onChange={(note) => onChange({ note })} />
      {expected && (
        <fieldset>
          <legend className={LABEL}>Its colour is nearest to</legend>
          <div className="flex gap-1 bg-grey p-2">
            {CHIPS.map(({ of, says }, i) => {
              const hex = expected[of];
              const on = strip.seen?.how === "nearest chip" && strip.seen.hex === hex;
              return (
                <button
                  key={of}
                  type="button"
                  aria-pressed={on}
                  aria-label={`chip ${i + 1} of ${CHIPS.length}, ${says}`}
                  className={`h-14 grow border-ink ${on ? "border-4" : "border"}`}
                  style={{ background: hex }}
                  onClick={() => see(on ? null : { hex, how: "nearest chip", within: within.nearest_chip })}
                />
              );
            })}
          </div>
          <p className="narrow mt-1 text-sm text-soft">
            From as dark to as pale as it may be; hold the strip against the screen in the same light. Good to
            about ΔE {within.nearest_chip}.
          </p>
        </fieldset>
      )}
      <div className="grid grid-cols-[auto_1fr] items-end gap-3">
        <label className={LABEL}>
          <span className="block">or picked</span>
          <input
            type="color"
            className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
            value={strip.seen?.hex ?? expected?.hex ?? "#888888"}
            onChange={(e) => see({ hex: e.target.value, how: "typed", within: within.typed })}
          />
        </label>
        <button
          type="button"
          className={`press ${photo ? "press-strong" : ""}`}
          aria-expanded={photo}
          onClick={() => setPhoto(!photo)}
        >
          From a photograph
        </button>
      </div>
      {(photo || strip.photo) && (
        <PhotoColour
          name={strip.photo}
          shared={board.strips.some((s) => s !== strip && s.photo === strip.photo)}
          within={within.photograph}
          onPhoto={(photo) => onChange({ photo })}
          onColour={see}
        />
      )}
      {strip.seen && (
        <p role="status" className="narrow flex items-center gap-2 text-sm">
          <span aria-hidden className="size-8 border-2 border-ink" style={{ background: strip.seen.hex }} />
          Seen as {strip.seen.hex}, {strip.seen.how}, within ΔE {strip.seen.within}.
          <button type="button" className="min-h-11 underline" onClick={() => see(null)}>
            not seen after all
          </button>
        </p>
      )}
    </div>
  );
}
