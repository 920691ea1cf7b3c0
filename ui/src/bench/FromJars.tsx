import type { JarHere, PotNow } from "../api/client";
import { grams, ml } from "../parts/say";

/** What is left of the same, to begin from, before anything else is poured. */
export function FromJars(props: { jars: JarHere[]; pot: PotNow; onTake: (jar: JarHere) => void }) {
  if (props.pot.pot.pours.length > 0 || props.pot.pot.carried.length > 0 || !props.jars.length) return null;
  return (
    <ul aria-label="Jars to begin from" className="mb-3 flex flex-wrap gap-2">
      {props.jars.map((jar) => (
        <li key={jar.pot}>
          <button
            type="button"
            className="press min-h-[72px] px-5 text-left"
            onClick={() => props.onTake(jar)}
          >
            Begin from the jar <span className="numeral">{jar.code}</span>: {grams(jar.take_g)}
            <span className="narrow block text-sm font-normal">
              {ml(jar.ml)} left of {jar.name.toLowerCase()}
              {jar.colour && `, ${jar.colour}`}
              {jar.use.how === "with water" && `; with ${ml(jar.use.add_water_ml)} more water`}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
