import { useState } from "react";
import type { Catalogue, Length, Piece } from "../api/client";
import { Choice, LengthField, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { newId } from "../parts/say";
import { TextField } from "../parts/TextField";
import { changePiece, changeZone, moveSurface } from "./change";
import type { OpenJob } from "./useJob";

type Part = Piece["parts"][number];

interface PartsPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
}

/** Parts of plain shape that the kind of piece does not know; they join the zone that is being worked on. */
export function PartsPanel({ open, catalogue, zone }: PartsPanelProps) {
  const [name, setName] = useState("");
  const [shape, setShape] = useState<Part["shape"]>("rectangle");
  const parts = open.job.piece?.parts ?? [];
  const change = (id: string, part: Partial<Part>) =>
    open.edit((j) =>
      changePiece(j, (p) => ({ ...p, parts: p.parts.map((x) => (x.id === id ? { ...x, ...part } : x)) })),
    );

  function add() {
    const part: Part = { id: newId(), name: name.trim(), shape, sizes: {}, count: 1, vertical: true };
    open.edit((j) =>
      changeZone(
        changePiece(j, (p) => ({ ...p, parts: [...p.parts, part] })),
        zone,
        (z) => ({ ...z, surfaces: [...z.surfaces, `part-${part.id}`] }),
      ),
    );
    setName("");
  }

  function takeOut(id: string) {
    open.edit((j) =>
      changePiece(moveSurface(j, `part-${id}`, ""), (p) => ({
        ...p,
        parts: p.parts.filter((x) => x.id !== id),
      })),
    );
  }

  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>Extra parts</legend>
      <ul>
        {parts.map((part, i) => (
          <li key={part.id} className="border-t border-line py-2">
            <div className="flex items-end gap-2">
              <TextField
                label={`Part ${i + 1}, ${part.shape}`}
                value={part.name}
                required
                onChange={(next) => change(part.id, { name: next })}
              />
              <button
                type="button"
                className="press"
                aria-label={`Take out ${part.name}`}
                onClick={() => takeOut(part.id)}
              >
                ×
              </button>
            </div>
            <div className="grid grid-cols-2 items-end gap-2">
              {catalogue.shapes
                .find((s) => s.slug === part.shape)
                ?.sizes.map((size) => (
                  <LengthField
                    key={size}
                    label={`${part.name}, ${size}`}
                    value={part.sizes[size]}
                    fault={open.plan.problems.find((p) => p.at === `/piece/parts/${i}/sizes/${size}`)}
                    onChange={(length: Length) =>
                      change(part.id, { sizes: { ...part.sizes, [size]: length } })
                    }
                  />
                ))}
              <Stepper
                label="How many"
                value={part.count}
                min={1}
                max={1000}
                onChange={(count) => change(part.id, { count })}
              />
            </div>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2 border-t border-line pt-1">
        <TextField label="Another part" value={name} placeholder="rail, knob, shelf" onChange={setName} />
        <Choice
          label="Shape"
          value={shape}
          options={catalogue.shapes.map((s) => ({ slug: s.slug, name: s.slug }))}
          onChange={(slug) => setShape(slug as Part["shape"])}
        />
        <button type="button" className="press" disabled={!name.trim()} onClick={add}>
          Add
        </button>
      </div>
    </fieldset>
  );
}
