import { Link, useSearchParams } from "react-router";
import type { Catalogue, PotWant, Recipe } from "../api/client";
import { useSheet } from "../api/queries";
import { useCatalogue, useSettings } from "../api/workshop";
import { Jar } from "../drawings/Jar";
import { Choice } from "../parts/fields";
import { Loading, Term } from "../parts/notices";
import { say } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { Shares } from "./RecipeView";
import { keeps, life, minutes } from "./words";

const WANT: PotWant = { by: "total", ml: 250 };

/** Two recipes side by side: same amount, same questions, line by line. */
export function CompareView() {
  usePlace("Two recipes");
  const [chosen, choose] = useSearchParams();
  const catalogue = useCatalogue();
  if (!catalogue.data) return <Loading>Opening the recipe book…</Loading>;
  const recipes = catalogue.data.recipes;
  const side = (key: "a" | "b", other: "a" | "b") => {
    const recipe = recipes.find((r) => r.slug === chosen.get(key)) ?? recipes[key === "a" ? 0 : 1];
    return (
      <div className="min-w-0 border-ink p-4 sm:p-6 [&+div]:max-sm:border-t-2 [&+div]:sm:border-l-2">
        <Choice
          label={key === "a" ? "This one" : "beside this one"}
          value={recipe?.slug ?? ""}
          options={recipes.filter((r) => r.slug !== chosen.get(other))}
          onChange={(slug) => choose({ a: chosen.get("a") ?? "", b: chosen.get("b") ?? "", [key]: slug })}
        />
        {recipe && <Side recipe={recipe} catalogue={catalogue.data} />}
      </div>
    );
  };
  return (
    <div>
      <div className="flex flex-wrap items-center gap-4 border-b-2 border-ink bg-enamel px-4 py-2 sm:px-6">
        <Link to="/book" className="inline-flex min-h-11 items-center underline">
          Recipe book
        </Link>
        <h1 className="wide text-lg font-bold">Side by side, 250 ml of each</h1>
      </div>
      <div className="grid sm:grid-cols-2">
        {side("a", "b")}
        {side("b", "a")}
      </div>
    </div>
  );
}

function Side({ recipe, catalogue }: { recipe: Recipe; catalogue: Catalogue }) {
  const settings = useSettings();
  const sheet = useSheet(recipe, "", WANT, settings.data?.measures ?? "");
  const target = catalogue.consistencies.find((c) => c.slug === recipe.target);
  const lines: [string, string][] = [
    ["Looks", recipe.looks],
    ["Aim at", target ? `${target.name}: ${target.looks}` : ""],
    ["Rest", recipe.rest_min ? minutes(recipe.rest_min) : "none"],
    ["Life", life(recipe)],
    ["Keeps", keeps(recipe)],
    ["Goes on", recipe.surfaces.join(", ") || "anything prepared for it"],
    ["Weight", sheet.data ? `${say(sheet.data.mix.mass_g)} g` : ""],
    ["Care", recipe.cautions.join(" ") || "as its label says"],
    ["Rests on", recipe.provenance],
  ];
  return (
    <>
      <div className="my-4 h-56">{sheet.data && <Jar jar={sheet.data.mix.jar} />}</div>
      {sheet.data && <Shares sheet={sheet.data} />}
      <dl className="mt-4">
        {lines.map(([term, text]) => (
          <div key={term} className="border-t border-line py-1.5 sm:grid sm:grid-cols-[5.5rem_1fr] sm:gap-3">
            <Term name={term}>{text}</Term>
          </div>
        ))}
      </dl>
    </>
  );
}
