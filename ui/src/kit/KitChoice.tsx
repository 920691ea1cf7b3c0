import { useState } from "react";
import { answer, api, type Catalogue, Refused } from "../api/client";
import { useChoose, usePutKit } from "../api/edits";
import { useSettings } from "../api/workshop";
import { ChooserField } from "../parts/ChooserField";
import { Alert } from "../parts/notices";
import { newId } from "../parts/say";

/** Which kit amounts are measured with: one of those there are, or what one types. True across all jobs. */
export function KitChoice({ catalogue }: { catalogue: Catalogue }) {
  const settings = useSettings();
  const choose = useChoose();
  const take = (kit: string) => {
    if (settings.data) choose.mutate({ ...settings.data, kit });
  };
  const typed = useTypedKit(take);
  if (!settings.data) return null;
  return (
    <div>
      <ChooserField
        label="Your measuring tools"
        of="kit"
        value={settings.data.kit}
        placeholder="a kit, or what you own: 5 ml, 15 ml"
        options={catalogue.kits.map((k) => ({
          slug: k.slug,
          name: k.name,
          says: k.measures.map((m) => m.name).join(", ") || "a scale",
        }))}
        onChoose={take}
        otherwise={{ says: "Measure with", take: (text) => void typed.make(text) }}
      />
      <Wrong of={typed} />
    </div>
  );
}

/** Measures as they are typed, made into a kit of one's own. */
function useTypedKit(onMade: (slug: string) => void) {
  const [wrong, setWrong] = useState<{ says: string; allowed: string } | null>(null);
  const put = usePutKit();
  async function make(typed: string) {
    setWrong(null);
    try {
      const measures = await answer(api.POST("/api/measures", { body: { typed } }));
      const slug = `own-${newId()}`;
      const name = measures
        .map((m) => m.name)
        .join(", ")
        .slice(0, MOST_NAME);
      const kit = { slug, name, measures, scale_g: 0, surplus: 0.3, tolerance: 0.03 };
      put.mutate({ entry: kit, read: 0 }, { onSuccess: () => onMade(slug) });
    } catch (error) {
      const fault = error instanceof Refused ? error.problem.faults?.[0] : null;
      setWrong({ says: fault?.says ?? (error as Error).message, allowed: fault?.allowed ?? "" });
    }
  }
  return { make, wrong, clear: () => setWrong(null) };
}

const MOST_NAME = 60;

function Wrong({ of }: { of: ReturnType<typeof useTypedKit> }) {
  if (!of.wrong) return null;
  return (
    <Alert quiet>
      {of.wrong.says} <span className="font-normal">Allowed: {of.wrong.allowed}.</span>
    </Alert>
  );
}

/** The measures one owns, typed in one line: they become a kit of one's own. */
export function TypedKit({ onMade }: { onMade: (slug: string) => void }) {
  const [typed, setTyped] = useState("");
  const kit = useTypedKit(onMade);
  return (
    <form
      className="border-t border-line pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void kit.make(typed);
      }}
    >
      <label className="narrow block text-sm font-semibold text-soft">
        What I own
        <input
          className="tape mt-1 w-full text-base text-ink"
          value={typed}
          placeholder="5 ml, 15 ml, ½ cup, jug 500 ml"
          autoComplete="off"
          aria-invalid={kit.wrong ? true : undefined}
          onChange={(e) => {
            setTyped(e.target.value);
            kit.clear();
          }}
        />
      </label>
      <Wrong of={kit} />
      <button type="submit" className="press mt-2" disabled={!typed.trim()}>
        Measure with these
      </button>
    </form>
  );
}
