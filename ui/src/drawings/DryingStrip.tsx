import type { Seen, Shade, StripFilm } from "../api/look";

interface DryingStripProps {
  seen: Seen;
  ground: string;
  /** The layer whose picture is shown; "" is the last. */
  upto: string;
  onUpto: (layer: string) => void;
}

/**
 * The strip from bare ground to sealed on mid grey, as painted on a board: of each layer wet, dry, and from how dark
 * to how pale it may turn out. Every row says in words what it shows.
 */
export function DryingStrip({ seen, ground, upto, onUpto }: DryingStripProps) {
  const rows = [...seen.column.films].reverse();
  const shown = upto || rows[0]?.layer;
  return (
    <ol aria-label="From bare ground to last layer" className="border-2 border-ink">
      {rows.map((film) => (
        <li key={film.layer} className="border-b-2 border-ink">
          <button
            type="button"
            aria-pressed={film.layer === shown}
            className={`grid w-full grid-cols-[9.5rem_1fr] items-stretch text-left ${film.layer === shown ? "bg-dark text-enamel" : "bg-enamel"}`}
            onClick={() => onUpto(film.layer)}
          >
            <WetAndDry film={film} className="min-h-16" />
            <span className="px-3 py-1.5">
              <strong className="block">{film.name}</strong>
              <span className="narrow block text-sm">
                {film.dry.words}, <Range shade={film.dry} />
              </span>
              <span className="narrow block text-sm">{film.dries}</span>
            </span>
          </button>
        </li>
      ))}
      <li className="grid grid-cols-[9.5rem_1fr] items-center bg-enamel">
        <span aria-hidden className="flex h-11 bg-grey p-1.5">
          <span className="grow border border-ink" style={{ background: seen.column.ground }} />
        </span>
        <span className="px-3">{ground}, bare</span>
      </li>
    </ol>
  );
}

/** A film on mid grey: wet, then dry, then from how pale to how dark it may turn out. */
export function WetAndDry({ film, className = "" }: { film: StripFilm; className?: string }) {
  return (
    <span aria-hidden className={`flex h-full bg-grey p-1.5 ${className}`}>
      <span className="w-1/4 border border-ink" style={{ background: film.wet.hex }} />
      <span className="ml-1 grow border border-ink" style={{ background: film.dry.hex }} />
      <span className="ml-1 flex w-1/6 flex-col border border-ink">
        <span className="grow" style={{ background: film.dry.palest }} />
        <span className="grow" style={{ background: film.dry.darkest }} />
      </span>
    </span>
  );
}

/** What a number is good for, in the measure of differences between colours. */
export function Range({ shade }: { shade: Shade }) {
  return (
    <span title={`L* ${Math.round(shade.lightness)}, within ΔE ${shade.within.toFixed(1)}`}>
      {shade.sure}
    </span>
  );
}
