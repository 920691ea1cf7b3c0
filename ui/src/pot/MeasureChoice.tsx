import type { Catalogue } from "../api/client";
import { useChoose } from "../api/edits";
import { useSettings } from "../api/workshop";
import { Choice } from "../parts/fields";

/** Which measures amounts are said in, and which kit they are measured with: true across all jobs. */
export function MeasureChoice({ catalogue, onChosen }: { catalogue: Catalogue; onChosen?: () => void }) {
  const settings = useSettings();
  const choose = useChoose();
  if (!settings.data) return null;
  const chosen = settings.data;
  const set = (change: Partial<typeof chosen>) =>
    choose.mutate({ ...chosen, ...change }, { onSuccess: () => onChosen?.() });
  return (
    <div className="grid grid-cols-2 gap-3">
      <Choice
        label="Measures"
        value={chosen.measures}
        options={catalogue.systems}
        onChange={(measures) => set({ measures })}
      />
      <Choice
        label="Kit in use"
        value={chosen.kit}
        options={catalogue.kits}
        onChange={(kit) => set({ kit })}
      />
    </div>
  );
}
