import { useState } from "react";
import { answer, api, type Catalogue, Refused } from "../api/client";
import { useChoose, usePutKit } from "../api/edits";
import { useSettings } from "../api/workshop";
import { ChooserField } from "../parts/Chooser";
import { Alert } from "../parts/notices";
import { newId } from "../parts/say";

/** Which kit amounts are measured with: one of those there are, or what one types. True across all jobs. */
export function KitChoice({ catalogue, onChosen }: { catalogue: Catalogue; onChosen?: () => void }) {
  const settings = useSettings();
  const choose = useChoose();
  if (!settings.data) return null;
  const chosen = settings.data;
  const take = (kit: string) => choose.mutate({ ...chosen, kit }, { onSuccess: () => onChosen?.() });
  return (
    <ChooserField
      label="Measured with"
      of="kit"
      value={chosen.kit}
      options={catalogue.kits.map((k) => ({
        slug: k.slug,
        name: k.name,
        says: k.measures.map((m) => m.name).join(", ") || "a scale",
      }))}
      onChoose={take}
      foot={(close) => (
        <TypedKit
          onMade={(slug) => {
            close();
            take(slug);
          }}
        />
      )}
    />
  );
}

/** The measures one owns, typed in one line: they become a kit of one's own. */
export function TypedKit({ onMade, surplus = 0.3 }: { onMade: (slug: string) => void; surplus?: number }) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<{ says: string; allowed: string } | null>(null);
  const put = usePutKit();

  async function make() {
    try {
      const measures = await answer(api.POST("/api/measures", { body: { typed } }));
      const slug = `own-${newId()}`;
      const kit = {
        slug,
        name: measures
          .map((m) => m.name)
          .join(", ")
          .slice(0, 60),
        measures,
        scale_g: 0,
        surplus,
        tolerance: 0.03,
      };
      put.mutate({ entry: kit, read: 0 }, { onSuccess: () => onMade(slug) });
    } catch (error) {
      const fault = error instanceof Refused ? error.problem.faults?.[0] : null;
      setWrong({ says: fault?.says ?? (error as Error).message, allowed: fault?.allowed ?? "" });
    }
  }

  return (
    <form
      className="border-t border-line pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
    >
      <label className="narrow block text-sm font-semibold text-soft">
        What I own
        <input
          className="tape mt-1 w-full text-base text-ink"
          value={typed}
          placeholder="5 ml, 15 ml, ½ cup, jug 500 ml"
          autoComplete="off"
          aria-invalid={wrong ? true : undefined}
          onChange={(e) => {
            setTyped(e.target.value);
            setWrong(null);
          }}
        />
      </label>
      {wrong && (
        <Alert quiet>
          {wrong.says} <span className="font-normal">Allowed: {wrong.allowed}.</span>
        </Alert>
      )}
      <button type="submit" className="press mt-2" disabled={!typed.trim()}>
        Measure with these
      </button>
    </form>
  );
}
