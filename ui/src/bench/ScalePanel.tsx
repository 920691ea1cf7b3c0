import { api, type ScaleNow } from "../api/client";
import { newId } from "../parts/say";
import { onScale } from "./onScale";

const DOSES = [0.5, 5, 25, 100];

type Hand = {
  do: "tare" | "put" | "pour" | "lift" | "unit" | "restart";
  g?: number;
  unit?: "g" | "oz" | "lb";
};

/** The hand at a simulated scale: there is no pot to pour into, so this pours. */
export function ScalePanel({ scale }: { scale: ScaleNow }) {
  const hand = (what: Hand) => void api.POST("/api/bench/scale", { body: { g: 0, unit: "g", ...what } });
  const key = newId();
  return (
    <details className="border-t-2 border-ink pt-1">
      <summary className="narrow inline-flex min-h-11 items-center underline">
        The simulated scale
        {scale.reading && `: ${onScale(scale.reading)}`}
      </summary>
      <div className="flex flex-wrap gap-0 pl-0.5 [&>*]:-ml-0.5 [&>*]:-mt-0.5">
        <button type="button" className="press" onClick={() => hand({ do: "put", g: 212 })}>
          Put a pot on
        </button>
        {DOSES.map((g) => (
          <button key={`${key}${g}`} type="button" className="press" onClick={() => hand({ do: "pour", g })}>
            Pour {g} g
          </button>
        ))}
        <button type="button" className="press" onClick={() => hand({ do: "pour", g: -5 })}>
          Take out 5 g
        </button>
        <button type="button" className="press" onClick={() => hand({ do: "lift" })}>
          Take all off
        </button>
        <button type="button" className="press" onClick={() => hand({ do: "tare" })}>
          Tare
        </button>
        <button type="button" className="press" onClick={() => hand({ do: "unit", unit: "oz" })}>
          Show ounces
        </button>
        <button type="button" className="press" onClick={() => hand({ do: "restart" })}>
          Off and on
        </button>
      </div>
    </details>
  );
}
