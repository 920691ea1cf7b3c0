import type { Layer } from "../api/client";
import { Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { percent } from "../parts/say";

const ONE_IN = [5, 10, 20, 50];

interface Props {
  margin: number;
  oneIn: number | null;
  onChange: (change: Partial<Pick<Layer, "margin" | "short_one_in">>) => void;
}

/** How much more is mixed than is believed to be needed: so much flat, or so much that it seldom runs short. */
export function MarginChoice({ margin, oneIn, onChange }: Props) {
  return (
    <div>
      <fieldset>
        <legend className={LABEL}>How much spare? It may run short one time in</legend>
        <div className="flex flex-wrap pl-0.5 [&>*]:-ml-0.5">
          {ONE_IN.map((n) => (
            <button
              key={n}
              type="button"
              className="press"
              aria-pressed={oneIn === n}
              aria-label={`One time in ${n}`}
              onClick={() => onChange({ short_one_in: n })}
            >
              {n}
            </button>
          ))}
          <button
            type="button"
            className="press"
            aria-pressed={oneIn === null}
            onClick={() => onChange({ short_one_in: null })}
          >
            Flat
          </button>
        </div>
      </fieldset>
      {oneIn === null ? (
        <div className="mt-2">
          <Stepper
            label="Flat margin"
            value={margin}
            min={0}
            max={1}
            step={0.05}
            shown={percent(margin)}
            onChange={(m) => onChange({ margin: Math.round(m * 100) / 100 })}
          />
        </div>
      ) : (
        <p className="narrow mt-1 text-sm text-soft">
          By how far rate, area and losses may be off, as far as the log tells: an estimate. Where a colour
          must match, ask for one in 50.
        </p>
      )}
    </div>
  );
}
