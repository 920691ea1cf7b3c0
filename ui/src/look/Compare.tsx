import { useState } from "react";
import type { Catalogue, Edit, Zone } from "../api/client";
import { tileFor, useChip, useSeen } from "../api/look";
import { Chip } from "../drawings/Chip";
import { Range } from "../drawings/DryingStrip";
import { MiniPiece } from "../drawings/MiniPiece";
import type { OpenJob } from "../job/useJob";
import { newId } from "../parts/say";

interface CompareProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
}

/** Looks of a zone side by side on the same piece: what is planned, and what was kept beside it. */
export function Compare({ open, catalogue, zone: index }: CompareProps) {
  const zone = open.job.zones[index];
  const [name, setName] = useState("");
  if (!zone) return null;
  const decide = (label: string, edit: Edit) => void open.decide(label, edit);
  const full = zone.variants.length >= catalogue.caps.variants;

  function keep() {
    if (!zone || full) return;
    const called = name.trim() || `Look ${zone.variants.length + 1}`;
    decide("a look kept", { edit: "keep variant", seed: newId(), zone: zone.id, name: called });
    setName("");
  }

  return (
    <div className="flex flex-col gap-4">
      <ul className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
        <Look
          open={open}
          zone={zone}
          variant=""
          name="Planned now"
          tileMm={tileFor(open.plan.drawing, catalogue.tiles_mm)}
        />
        {zone.variants.map((v) => (
          <Look
            key={v.id}
            open={open}
            zone={zone}
            variant={v.id}
            name={v.name}
            tileMm={tileFor(open.plan.drawing, catalogue.tiles_mm)}
          >
            <div className="flex">
              <button
                type="button"
                className="press grow text-sm"
                onClick={() =>
                  decide("another look chosen", {
                    edit: "choose variant",
                    seed: newId(),
                    zone: zone.id,
                    variant: v.id,
                    name: "The one before",
                  })
                }
              >
                Take this one
              </button>
              <button
                type="button"
                className="press -ml-0.5 text-sm"
                aria-label={`Drop ${v.name}`}
                onClick={() =>
                  decide("a look dropped", {
                    edit: "drop variant",
                    seed: newId(),
                    zone: zone.id,
                    variant: v.id,
                  })
                }
              >
                Drop
              </button>
            </div>
          </Look>
        ))}
      </ul>
      <form
        className="grid grid-cols-[1fr_auto] items-end gap-2 border-t-2 border-ink pt-3"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <label className="block text-sm font-semibold">
          Keep what is planned now as
          <input
            className="tape mt-1 w-full text-base font-normal"
            value={name}
            maxLength={80}
            placeholder={`Look ${zone.variants.length + 1}`}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <button type="submit" className="press" disabled={full}>
          Keep it
        </button>
      </form>
      <p className="narrow text-sm text-soft">
        {full
          ? `${catalogue.caps.variants} are kept: drop one before another is kept.`
          : "Then change what is planned, and see both side by side. Taking one keeps the other."}
      </p>
    </div>
  );
}

function Look(props: {
  open: OpenJob;
  zone: Zone;
  variant: string;
  name: string;
  tileMm: number;
  children?: React.ReactNode;
}) {
  const { open, zone, variant, name, children } = props;
  const chip = useChip({ job: open.job, zone: zone.id, variant });
  const tile = useChip({ job: open.job, zone: zone.id, variant, tileMm: props.tileMm }, 160);
  const seen = useSeen(open.job, zone.id, variant);
  const said = seen.data;
  return (
    <li className="flex flex-col gap-1">
      <strong>{name}</strong>
      <Chip
        address={chip.address}
        old={chip.old}
        says={`${name}: ${said?.afar_words ?? "a look"}, an estimate`}
        className="w-full"
      />
      {open.plan.drawing && (
        <MiniPiece
          drawing={open.plan.drawing}
          zone={zone.id}
          tile={tile.address}
          tileMm={props.tileMm}
          fills={Object.fromEntries(open.plan.zones.map((z) => [z.zone, z.hex]))}
        />
      )}
      {said && (
        <p className="narrow text-sm">
          <span className="block first-letter:uppercase">{said.afar_words}</span>
          <Range shade={said.column.top} />
        </p>
      )}
      {children}
    </li>
  );
}
