import { useEffect, useState } from "react";
import type { Days, Hurry } from "../api/client";
import { useJob } from "../job/useJob";

/** What warm air would save, and what it costs: used only where it is pressed. */
export function Hurries({ hurries, days }: { hurries: Hurry[]; days: Days }) {
  const [pressed, setPressed] = useState<Hurry | null>(null);
  if (!hurries.length) return null;
  const names = new Map(days.jobs.map((j) => [j.job, j.name]));
  return (
    <section aria-label="What warm air would save">
      <ul>
        {hurries.map((h) => (
          <li
            key={`${h.job} ${h.layer}`}
            className="flex flex-wrap items-center gap-x-3 border-t border-line py-1"
          >
            <span className="min-w-0 grow">
              <span className="bg-tape px-1.5 text-sm">{names.get(h.job)}</span> {h.says}:{" "}
              {[
                h.sooner && `${h.sooner} sooner`,
                h.visits_less === 1 && "a visit less",
                h.visits_less > 1 && `${h.visits_less} visits less`,
              ]
                .filter(Boolean)
                .join(", ")}
              , for {h.hands_on} more hands on.
            </span>
            <button type="button" className="press" onClick={() => setPressed(h)} disabled={pressed !== null}>
              Dry it so
            </button>
          </li>
        ))}
      </ul>
      {pressed && <Press hurry={pressed} onDone={() => setPressed(null)} />}
    </section>
  );
}

/** The layer is dried by a hair dryer from now on: an edit of its job, which undo takes back there. */
function Press({ hurry, onDone }: { hurry: Hurry; onDone: () => void }) {
  const { open } = useJob(hurry.job);
  const [edited, setEdited] = useState(false);
  const edit = open?.edit;
  const saved = edited && open?.saveState === "saved";
  useEffect(() => {
    if (saved) onDone();
  }, [saved, onDone]);
  useEffect(() => {
    if (!edit || edited) return;
    setEdited(true);
    edit((job) => ({
      ...job,
      zones: job.zones.map((zone) =>
        zone.id === hurry.zone
          ? {
              ...zone,
              layers: zone.layers.map((layer) =>
                layer.id === hurry.layer ? { ...layer, dries_by: "hair dryer" as const } : layer,
              ),
            }
          : zone,
      ),
    }));
  }, [edit, edited, hurry]);
  return null;
}
