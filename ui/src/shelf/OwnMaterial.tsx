import { useState } from "react";
import type { Material } from "../api/client";
import { usePutShelf } from "../api/edits";
import { Failure } from "../parts/Failure";
import { Choice } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { newId } from "../parts/say";
import { TextField } from "../parts/TextField";

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
  const [hex, setHex] = useState("#7f8f8a");
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
      unit: "ml" as const,
      opened_on: "",
      packs: [],
      overlays: [],
      own,
      note: "",
    };
    put.mutate(
      { entry: item, read: 0 },
      {
        onSuccess: () => {
          setName("");
          onAdded(slug);
        },
      },
    );
  }

  return (
    <section
      aria-label="A material of your own"
      className="mt-6 max-w-3xl border-2 border-dashed border-soft p-3"
    >
      <h2 className="text-base font-bold">A material of your own</h2>
      <p className="narrow text-sm text-soft">
        It starts with the values of the nearest one there is. Weigh a cup of it, and they are yours.
      </p>
      <div className="mt-2 grid items-end gap-2 sm:grid-cols-[1fr_1fr_auto_auto]">
        <TextField label="What you call it" value={name} placeholder="name on the tin" onChange={setName} />
        <Choice
          label="Most like"
          value={base}
          options={book.map((m) => ({ slug: m.slug, name: m.name }))}
          onChange={(slug) => {
            setBase(slug);
            setHex(book.find((m) => m.slug === slug)?.hex ?? hex);
          }}
        />
        <label className={LABEL}>
          <span className="block">Colour</span>
          <input
            type="color"
            className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
            value={hex}
            onChange={(e) => setHex(e.target.value)}
          />
        </label>
        <button type="button" className="press" disabled={!name.trim() || put.isPending} onClick={add}>
          Put it on the shelf
        </button>
      </div>
      {put.error && <Failure error={put.error} />}
    </section>
  );
}
