import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Catalogue, Recipe } from "../api/client";
import { useCatalogue } from "../api/workshop";
import { RecipeChip } from "../drawings/Chip";
import { Failure } from "../parts/Failure";
import { FilePanel } from "../parts/FilePanel";
import { Loading } from "../parts/notices";
import { ShareBar } from "../parts/ShareBar";
import { TextField } from "../parts/TextField";
import { usePlace } from "../parts/usePlace";
import { inOrder, life } from "./words";

/** The recipe book: every family of mix, to open or to lay two side by side. */
export function BookView() {
  usePlace("Recipe book");
  const catalogue = useCatalogue();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [picked, setPicked] = useState<string[]>([]);
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!catalogue.data) return <Loading>Opening the recipe book…</Loading>;
  const { recipes, own_recipes } = catalogue.data;
  const wanted = search.trim().toLowerCase();
  const found = recipes.filter(
    (r) =>
      !wanted ||
      [r.name, r.family, r.looks, ...r.components.map((c) => c.name)]
        .join(" ")
        .toLowerCase()
        .includes(wanted),
  );
  const families = inOrder([...new Set(found.map((r) => (r.slug in own_recipes ? "Your own" : r.family)))]);
  const inFamily = (family: string) =>
    found.filter((r) => (r.slug in own_recipes ? family === "Your own" : r.family === family));
  const pick = (slug: string) =>
    setPicked((now) => (now.includes(slug) ? now.filter((s) => s !== slug) : [...now.slice(-1), slug]));

  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="wide text-xl font-bold">Recipe book</h1>
        <div className="w-full sm:w-72">
          <TextField label="Look for" type="search" value={search} onChange={setSearch} />
        </div>
      </div>
      <p role="status" className="mt-3 min-h-11 text-sm text-soft">
        {picked.length === 2 ? (
          <button
            type="button"
            className="press press-strong"
            onClick={() => navigate(`/book/compare?a=${picked[0]}&b=${picked[1]}`)}
          >
            Lay the two side by side
          </button>
        ) : picked.length === 1 ? (
          "Tick one more to lay the two side by side."
        ) : (
          `${found.length} of ${recipes.length} recipes. Tick two to lay them side by side. Pictures are estimates.`
        )}
      </p>
      {families.map((family) => (
        <section key={family} className="mt-5" aria-label={family}>
          <h2 className="border-b-2 border-ink pb-1 text-base font-bold">{family}</h2>
          <ul>
            {inFamily(family).map((recipe) => (
              <Row
                key={recipe.slug}
                recipe={recipe}
                catalogue={catalogue.data}
                picked={picked.includes(recipe.slug)}
                onPick={() => pick(recipe.slug)}
              />
            ))}
          </ul>
        </section>
      ))}
      {found.length === 0 && (
        <p className="mt-6 text-lg">No recipe has “{search}” in its name, looks or parts.</p>
      )}
      <FilePanel what="recipes" says="Your own recipes, to keep or to pass on." />
    </div>
  );
}

interface RowProps {
  recipe: Recipe;
  catalogue: Catalogue;
  picked: boolean;
  onPick: () => void;
}

function Row({ recipe, catalogue, picked, onPick }: RowProps) {
  const word = catalogue.consistencies.find((c) => c.slug === recipe.target)?.name;
  const strip = (catalogue.strips[recipe.slug] ?? []).map((s) => ({ ...s, key: s.component }));
  return (
    <li className="flex items-stretch gap-3 border-b border-line">
      <label className="flex min-h-11 min-w-11 items-center justify-center">
        <input
          type="checkbox"
          className="size-6 accent-dark"
          checked={picked}
          onChange={onPick}
          aria-label={`Compare ${recipe.name}`}
        />
      </label>
      <Link
        to={`/book/${recipe.slug}`}
        className="grid min-w-0 grow grid-cols-[4rem_1fr] gap-x-4 py-1.5 hover:underline lg:grid-cols-[4rem_15rem_8rem_1fr_12rem] lg:items-center"
      >
        <span className="row-span-4 lg:row-span-1">
          <RecipeChip recipe={recipe.slug} />
        </span>
        <span className="font-semibold">{recipe.name}</span>
        <ShareBar slices={strip} />
        <span className="narrow text-soft">{recipe.looks}</span>
        <span className="narrow text-sm text-soft">
          {word}; {life(recipe)}
        </span>
      </Link>
    </li>
  );
}
