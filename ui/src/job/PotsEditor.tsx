import type { Component, Layer, PotPlan, Tint } from "../api/client";
import { NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { newId, percent } from "../parts/say";
import { TextField } from "../parts/TextField";
import { withOneMore } from "../rules/shares";

interface PotsEditorProps {
  layer: Layer;
  paint: Component;
  most: number;
  onChange: (pots: PotPlan[]) => void;
}

const STARTING = ["#8c2f2b", "#c59a3c", "#6f7f86", "#2b2b2e", "#dcd6c6", "#3f5f7a"];

/** Several pots from one recipe: each with its share of the surface, and paints its colour is mixed from. */
export function PotsEditor({ layer, paint, most, onChange }: PotsEditorProps) {
  const { pots } = layer;
  const change = (id: string, part: Partial<PotPlan>) =>
    onChange(pots.map((p) => (p.id === id ? { ...p, ...part } : p)));
  const tintsOf = (pot: PotPlan): Tint[] =>
    pot.tints[paint.id] ?? [{ name: pot.name, hex: pot.colours[paint.id]?.hex ?? "#7f8f8a", parts: 1 }];
  const setTints = (pot: PotPlan, tints: Tint[]) =>
    change(pot.id, { tints: { ...pot.tints, [paint.id]: tints } });

  function add() {
    const base = layer.colours[paint.id];
    const fresh = (n: number): PotPlan => ({
      id: newId(),
      name: n === 0 && base?.name ? base.name : `Colour ${n + 1}`,
      share: 1,
      colours: {},
      tints: {
        [paint.id]: [
          { name: "", hex: (n === 0 && base?.hex) || STARTING[n % STARTING.length] || "#7f8f8a", parts: 1 },
        ],
      },
    });
    const next = pots.length ? [...pots, fresh(pots.length)] : [fresh(0), fresh(1)];
    const shares = withOneMore(pots.length ? pots.map((p) => p.share) : [1]);
    onChange(next.map((p, i) => ({ ...p, share: shares[i] ?? p.share })));
  }

  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>
        {pots.length
          ? `Pots, ${percent(pots.reduce((sum, p) => sum + p.share, 0))} of the surface`
          : "Several colours"}
      </legend>
      <ul className="flex flex-col gap-3">
        {pots.map((pot, i) => (
          <li key={pot.id} className="border-l-4 border-ink pl-3">
            <div className="grid grid-cols-[1fr_6.5rem_auto] items-end gap-2">
              <TextField
                label={`Pot ${i + 1}`}
                value={pot.name}
                max={80}
                onChange={(name) => change(pot.id, { name })}
              />
              <NumberField
                label="Share"
                value={Math.round(pot.share * 1000) / 10}
                unit="%"
                min={1}
                max={100}
                onChange={(share) => change(pot.id, { share: share / 100 })}
              />
              <button
                type="button"
                className="press"
                aria-label={`Take out pot ${i + 1}`}
                onClick={() => onChange(pots.length > 2 ? pots.filter((p) => p.id !== pot.id) : [])}
              >
                ×
              </button>
            </div>
            {tintsOf(pot).map((tint, t) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: paints have no id of their own
              <div key={t} className="mt-1 grid grid-cols-[auto_1fr_5.5rem_auto] items-end gap-2">
                <input
                  type="color"
                  aria-label={`Pot ${i + 1}, paint ${t + 1}: colour`}
                  className="h-11 w-12 border-2 border-ink bg-enamel p-0.5"
                  value={tint.hex}
                  onChange={(e) =>
                    setTints(
                      pot,
                      tintsOf(pot).map((x, k) => (k === t ? { ...x, hex: e.target.value } : x)),
                    )
                  }
                />
                <input
                  aria-label={`Pot ${i + 1}, paint ${t + 1}: name`}
                  placeholder="name of the paint"
                  className="tape w-full"
                  value={tint.name}
                  maxLength={80}
                  onChange={(e) =>
                    setTints(
                      pot,
                      tintsOf(pot).map((x, k) => (k === t ? { ...x, name: e.target.value } : x)),
                    )
                  }
                />
                <NumberField
                  label="Parts"
                  value={tint.parts}
                  unit=""
                  min={0.01}
                  max={1000}
                  onChange={(parts) =>
                    setTints(
                      pot,
                      tintsOf(pot).map((x, k) => (k === t ? { ...x, parts } : x)),
                    )
                  }
                />
                {tintsOf(pot).length > 1 ? (
                  <button
                    type="button"
                    className="press"
                    aria-label={`Pot ${i + 1}: take out paint ${t + 1}`}
                    onClick={() =>
                      setTints(
                        pot,
                        tintsOf(pot).filter((_, k) => k !== t),
                      )
                    }
                  >
                    ×
                  </button>
                ) : (
                  <span className="w-11" />
                )}
              </div>
            ))}
            <button
              type="button"
              className="mt-1 min-h-11 underline"
              onClick={() => setTints(pot, [...tintsOf(pot), { name: "", hex: "#efe9da", parts: 1 }])}
            >
              Mix in another paint
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="press mt-2" onClick={add} disabled={pots.length >= most}>
        {pots.length ? "Another pot" : "Mix it in several colours"}
      </button>
    </fieldset>
  );
}
