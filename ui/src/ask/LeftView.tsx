import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { useAmount, useLeftOver } from "../api/asking";
import { type Catalogue, type LeftOver, Refused } from "../api/client";
import { useCatalogue } from "../api/workshop";
import { recipeOptions } from "../book/options";
import { RecipeChip } from "../drawings/Chip";
import { Chooser } from "../parts/Chooser";
import { Failure } from "../parts/Failure";
import { FieldError } from "../parts/fields";
import { LABEL, Loading } from "../parts/notices";
import { ml, percent } from "../parts/say";
import { useAddress } from "../parts/useAddress";
import { useArea } from "../parts/useArea";
import { usePlace } from "../parts/usePlace";

/** Something is left of a mix: how far it goes, what of open jobs it covers, what it can be thinned to. */
export function LeftView() {
  const catalogue = useCatalogue();
  usePlace("What is left");
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!catalogue.data) return <Loading>Opening the recipes…</Loading>;
  return <Left catalogue={catalogue.data} />;
}

function Left({ catalogue }: { catalogue: Catalogue }) {
  const [recipe, setRecipe] = useAddress("mix", "");
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const amount = useAmount(typed);
  const said = useLeftOver(recipe, amount.data ?? 0);
  const wrong = amount.error instanceof Refused ? amount.error.problem.faults?.[0] : undefined;
  const name = catalogue.recipes.find((r) => r.slug === recipe)?.name;
  useEffect(() => {
    if (recipe) field.current?.focus();
  }, [recipe]);
  return (
    <div className="mx-auto max-w-4xl px-4 py-6 sm:px-8">
      <h1 className="wide text-xl font-bold">What is left</h1>
      {!name ? (
        <div className="mt-4 flex max-h-[calc(100dvh-11rem)] flex-col">
          <Chooser
            label="What is left of?"
            of="recipe"
            focused
            placeholder="glaze, milk paint, wash…"
            options={recipeOptions(catalogue)}
            picture={(o) => (
              <span className="w-14">
                <RecipeChip recipe={o.slug} />
              </span>
            )}
            onChoose={setRecipe}
          />
        </div>
      ) : (
        <>
          <div className="mt-3 flex flex-wrap items-end gap-4">
            <p className="grow text-lg font-semibold">
              {name}{" "}
              <button
                type="button"
                className="min-h-11 px-2 font-normal underline"
                onClick={() => setRecipe("")}
              >
                another mix
              </button>
            </p>
            <div className="w-full sm:w-56">
              <label htmlFor="left" className={LABEL}>
                How much is left
              </label>
              <input
                ref={field}
                id="left"
                className="tape numeral w-full text-xl"
                value={typed}
                placeholder="120 ml"
                autoComplete="off"
                maxLength={60}
                aria-invalid={wrong ? true : undefined}
                aria-describedby={wrong ? "left-error" : undefined}
                onChange={(e) => setTyped(e.target.value)}
              />
              {wrong && <FieldError id="left-error" says={wrong.says} allowed={wrong.allowed} />}
            </div>
          </div>
          {amount.error && !wrong && <Failure error={amount.error} onRetry={() => void amount.refetch()} />}
          {said.error && <Failure error={said.error} onRetry={() => void said.refetch()} />}
          {amount.data !== undefined && said.data && <Answer said={said.data} />}
        </>
      )}
    </div>
  );
}

function Answer({ said }: { said: LeftOver }) {
  const { area, parts } = useArea();
  return (
    <div aria-live="polite">
      <section aria-labelledby="goes" className="mt-6">
        <h2 id="goes" className="wide text-lg font-bold">
          {ml(said.ml)} goes so far, in one coat
        </h2>
        <ul>
          {said.goes.map((g) => (
            <li
              key={g.technique + g.ground}
              className="grid grid-cols-[8rem_1fr] items-baseline gap-x-4 border-t border-line py-2"
            >
              <span>
                <span className="numeral text-xl">{parts(g.area_m2).value}</span> {parts(g.area_m2).unit}
              </span>
              <span>
                {g.technique}, on {g.ground}
                <span className="narrow block text-sm text-soft">
                  between {area(g.least_m2)} and {area(g.most_m2)}, an estimate
                </span>
              </span>
            </li>
          ))}
        </ul>
        {said.keeps && <p className="narrow text-sm">It keeps {said.keeps}.</p>}
      </section>
      <section aria-labelledby="serves" className="mt-6">
        <h2 id="serves" className="wide text-lg font-bold">
          In your open jobs
        </h2>
        {said.serves.length === 0 && <p className="text-soft">No open job is laid with it.</p>}
        <ul>
          {said.serves.map((s) => (
            <li key={s.job + s.layer} className="border-t border-line">
              <Link
                to={`/jobs/${s.job}/mix?zone=${s.zone}&layer=${s.layer}`}
                className="grid min-h-11 grid-cols-[8rem_1fr] items-baseline gap-x-4 py-2 hover:underline"
              >
                <span className="font-semibold">{s.share >= 1 ? "enough" : percent(s.share)}</span>
                <span>
                  <span className="bg-tape px-1.5 font-semibold">{s.job_name}</span> {s.zone_name}, layer{" "}
                  {s.number}, needs {ml(s.needs_ml)}
                  {s.colour && `, in ${s.colour}`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      {said.thinner.length > 0 && (
        <section aria-labelledby="thinner" className="mt-6">
          <h2 id="thinner" className="wide text-lg font-bold">
            Thinned further
          </h2>
          <ul>
            {said.thinner.map((t) => (
              <li
                key={t.share}
                className="grid grid-cols-[8rem_1fr] items-baseline gap-x-4 border-t border-line py-2"
              >
                <span>
                  <span className="numeral text-lg">{percent(t.share)}</span> {t.name.toLowerCase()}
                </span>
                <span>
                  add {ml(t.add_ml)} of {t.name.toLowerCase()}: makes {ml(t.ml)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
