import { useState } from "react";
import type { Coverage, Material } from "../api/client";
import { usePutShelf } from "../api/edits";
import { ChooserField } from "../parts/ChooserField";
import { Failure } from "../parts/Failure";
import { LABEL } from "../parts/notices";
import { dayOf, newId } from "../parts/say";
import { sound } from "../parts/sound";
import { TextField } from "../parts/TextField";
import { CoverageField } from "./CoverageField";

/** A material of one's own: starts as a copy of the nearest one there is, then gives way to what is weighed. */
export function OwnMaterial({
  materials,
  onAdded,
}: {
  materials: Material[];
  onAdded: (slug: string) => void;
}) {
  const put = usePutShelf("");
  const [name, setName] = useState("");
  const [base, setBase] = useState("matt-paint");
  const [added, setAdded] = useState(0);
  const [hex, setHex] = useState("#7f8f8a");
  const [coverage, setCoverage] = useState<Coverage | null>(null);
  const book = materials.filter((m) => !m.slug.startsWith("own-"));
  const like = book.find((m) => m.slug === base);

  function add() {
    if (!like) return;
    const slug = `own-${newId()}`;
    const provenance = `your own, starting from the values of ${like.name}`;
    const own = { ...like, slug, name: name.trim(), hex, provenance, sources: {} };
    const item = {
      slug,
      on_hand: 0,
      counted_min: null,
      unit: "ml" as const,
      opened_on: "",
      packs: [],
      overlays: coverage
        ? [
            {
              field: "label_rate_ml_per_m2" as const,
              value: coverage.ml_per_m2,
              source: "label" as const,
              at: dayOf(),
              said: coverage.said,
            },
          ]
        : [],
      own,
      note: "",
    };
    put.mutate(
      { entry: item, read: 0 },
      {
        onSuccess: () => {
          setName("");
          setAdded((n) => n + 1);
          onAdded(slug);
        },
      },
    );
  }

  return (
    <form
      aria-label="A paint or material of your own"
      className="mt-6 max-w-3xl border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() && sound(e.currentTarget)) add();
      }}
    >
      <h2 className="text-base font-bold">A paint or material of your own</h2>
      <p className="narrow text-sm text-soft">
        It starts with the values of the nearest one there is. What its label says, and what you weigh, is
        yours.
      </p>
      <div className="mt-2 grid items-start gap-x-3 gap-y-2 sm:grid-cols-[1fr_1fr_auto]">
        <TextField label="What you call it" value={name} placeholder="name on the tin" onChange={setName} />
        <CoverageField key={added} label="Covers, by its label" onRead={setCoverage} />
        <label className={LABEL}>
          <span className="block">Colour</span>
          <input
            type="color"
            className="h-11 w-16 border border-soft bg-enamel p-0.5"
            value={hex}
            onChange={(e) => setHex(e.target.value)}
          />
        </label>
        <ChooserField
          label="Most like"
          of="material"
          value={base}
          options={book.map((m) => ({ slug: m.slug, name: m.name, says: m.kind }))}
          onChoose={(slug) => {
            setBase(slug);
            setHex(book.find((m) => m.slug === slug)?.hex ?? hex);
          }}
        />
        <button type="submit" className="press self-end" disabled={!name.trim() || put.isPending}>
          Put it on the shelf
        </button>
      </div>
      {put.error && <Failure error={put.error} />}
    </form>
  );
}
