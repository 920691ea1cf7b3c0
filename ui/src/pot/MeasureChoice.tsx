import type { Catalogue } from "../api/client";
import { useChoose } from "../api/edits";
import { useSettings } from "../api/workshop";
import { KitChoice } from "../kit/KitChoice";
import { Choice } from "../parts/fields";

interface MeasureChoiceProps {
  catalogue: Catalogue;
}

/** Which measures amounts are said in, and which kit they are measured with: true across all jobs. */
export function MeasureChoice({ catalogue }: MeasureChoiceProps) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <SystemChoice catalogue={catalogue} />
      <KitChoice catalogue={catalogue} />
    </div>
  );
}

/** Which measures amounts are said in. */
export function SystemChoice({ catalogue }: MeasureChoiceProps) {
  const settings = useSettings();
  const choose = useChoose();
  if (!settings.data) return null;
  const chosen = settings.data;
  return (
    <Choice
      label="Units"
      value={chosen.measures}
      options={catalogue.systems}
      onChange={(measures) => choose.mutate({ ...chosen, measures })}
    />
  );
}
