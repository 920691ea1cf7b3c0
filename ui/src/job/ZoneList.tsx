import { useArea } from "../parts/useArea";
import type { OpenJob } from "./useJob";

interface ZoneListProps {
  open: OpenJob;
  zone: number;
  onZone: (index: number) => void;
}

/** The zones of a job with their areas, to pick one. */
export function ZoneList({ open, zone: index, onZone }: ZoneListProps) {
  const { area } = useArea();
  return (
    <ul aria-label="Zones">
      {open.job.zones.map((z, i) => {
        const measured = open.plan.zones.find((p) => p.zone === z.id)?.area;
        return (
          <li key={z.id}>
            <button
              type="button"
              aria-pressed={i === index}
              className="flex min-h-11 w-full items-baseline justify-between gap-2 border-l-4 border-transparent py-2 pl-2 text-left hover:underline aria-pressed:border-ink aria-pressed:font-bold"
              onClick={() => onZone(i)}
            >
              {z.name}
              <span className="numeral">{measured ? area(measured.value) : "–"}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
