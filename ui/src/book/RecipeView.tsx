import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useBeginJob } from "../api/changes";
import { type Catalogue, type PotWant, type Recipe, Refused, type Sheet } from "../api/client";
import { useDeleteRecipe, usePutRecipe } from "../api/edits";
import { useSheet } from "../api/queries";
import { useCatalogue, useSettings } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { Choice } from "../parts/fields";
import { Alert, LABEL, Loading, TakeCare } from "../parts/notices";
import { newId, percent, say } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { MeasureChoice } from "../pot/MeasureChoice";
import { Pot } from "../pot/Pot";
import { Scale } from "./Scale";
import { Tinting } from "./Tinting";
import { isOwn, keeps, life, minutes, stated } from "./words";

/** One recipe, worked out for the amount that is wanted. */
export function RecipeView() {
  const { slug } = useParams();
  const catalogue = useCatalogue();
  const recipe = catalogue.data?.recipes.find((r) => r.slug === slug);
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!catalogue.data) return <Loading>Opening the recipe…</Loading>;
  if (!recipe)
    return (
      <div className="p-6">
        <h1 className="text-xl font-bold">The book has no recipe “{slug}”</h1>
        <Link to="/book" className="press mt-4 inline-block">
          To the recipe book
        </Link>
      </div>
    );
  return <Page key={recipe.slug} recipe={recipe} catalogue={catalogue.data} />;
}

function Page({ recipe, catalogue }: { recipe: Recipe; catalogue: Catalogue }) {
  usePlace(recipe.name);
  const [want, setWant] = useState<PotWant>({ by: "total", ml: 250 });
  const [school, setSchool] = useState("");
  const settings = useSettings();
  const sheet = useSheet(recipe, school, want, settings.data?.measures ?? "");
  const begin = useBeginJob();
  const put = usePutRecipe();
  const remove = useDeleteRecipe();
  const navigate = useNavigate();
  const own = isOwn(catalogue, recipe.slug);
  const fault = sheet.error instanceof Refused ? sheet.error.problem.faults?.[0] : undefined;

  function copy() {
    const slug = `own-${newId()}`;
    const provenance = `your own, from “${recipe.name}”`;
    put.mutate(
      { entry: { ...recipe, slug, name: `My ${recipe.name.toLowerCase()}`, provenance }, read: 0 },
      { onSuccess: () => navigate(`/book/${slug}/change`) },
    );
  }

  return (
    <div className="grid lg:grid-cols-[minmax(0,1fr)_minmax(26rem,34rem)]">
      <div className="min-w-0 p-4 sm:p-6">
        <div className="flex flex-wrap justify-between gap-3 print:hidden">
          <Link to="/book" className="inline-flex min-h-11 items-center underline">
            Recipe book
          </Link>
          <button type="button" className="press" onClick={() => window.print()}>
            Print it
          </button>
        </div>
        <figure className="float-right ml-4 w-36">
          <img
            src={`/api/look/recipes/${encodeURIComponent(recipe.slug)}?px=320`}
            alt={`${recipe.name} on the surface: an estimate, the bar is 50 mm`}
            className="aspect-square w-full border-2 border-ink bg-steel"
          />
          <figcaption className="narrow mt-1 text-sm text-soft">An estimate: make a test board.</figcaption>
        </figure>
        <h1 className="wide text-xl leading-tight font-bold">{recipe.name}</h1>
        <p className="mt-1 max-w-prose">{recipe.looks}</p>
        <p className="narrow mt-1 text-sm text-soft">
          {recipe.rest_min > 0 && `Rests ${minutes(recipe.rest_min)}; `}
          {life(recipe)}; {keeps(recipe)}.
        </p>
        <div className="mt-4 flex flex-wrap gap-2">
          <button
            type="button"
            className="press press-strong"
            disabled={!sheet.data}
            onClick={() =>
              sheet.data &&
              begin.mutate(
                { recipe: recipe.slug, ml: sheet.data.mix.volume.value },
                { onSuccess: (job) => navigate(`/jobs/${job.id}`) },
              )
            }
          >
            Mix this pot
          </button>
          <button type="button" className="press" onClick={copy}>
            Copy as my own
          </button>
          {own && (
            <>
              <Link to={`/book/${recipe.slug}/change`} className="press inline-flex items-center">
                Change it
              </Link>
              <button
                type="button"
                className="press"
                onClick={() =>
                  remove.mutate(
                    { entry: recipe, read: catalogue.own_recipes[recipe.slug] ?? 0 },
                    { onSuccess: () => navigate("/book") },
                  )
                }
              >
                Take it out of the book
              </button>
            </>
          )}
        </div>
        {(put.error ?? begin.error ?? remove.error) && (
          <Failure error={(put.error ?? begin.error ?? remove.error) as Error} />
        )}
        <TakeCare texts={recipe.cautions} />
        <div className="mt-5 grid gap-6 xl:grid-cols-2">
          <section aria-label="What is in it">
            <h2 className="mb-2 border-b-2 border-ink pb-1 text-base font-bold">What is in it</h2>
            {sheet.data && <Shares sheet={sheet.data} />}
            {recipe.schools.length > 0 && (
              <div className="mt-4">
                <Choice
                  label="Way of doing it"
                  value={school}
                  options={[{ slug: "", name: "the book’s" }, ...recipe.schools]}
                  onChange={setSchool}
                />
                <p className="narrow mt-1 text-sm text-soft">
                  {recipe.schools.find((s) => s.slug === school)?.reason ?? recipe.default_school}
                </p>
              </div>
            )}
            <Limits recipe={recipe} sheet={sheet.data} catalogue={catalogue} />
          </section>
          <section aria-label="How it is made">
            <h2 className="mb-2 border-b-2 border-ink pb-1 text-base font-bold">How it is made</h2>
            <ol className="list-decimal space-y-1.5 pl-6">
              {recipe.steps.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
            <p className="mt-3 text-sm text-soft">
              {recipe.surfaces.length
                ? `Goes on ${recipe.surfaces.join(", ")}. `
                : "Goes on anything that is prepared for it. "}
              {recipe.techniques
                .map((t) => catalogue.techniques.find((x) => x.slug === t)?.name)
                .filter(Boolean)
                .join("; ")}
              .
            </p>
            <p className="mt-2 text-sm text-soft">Rests on: {recipe.provenance}.</p>
          </section>
        </div>
        {recipe.family === "Waxes" && recipe.measured_by === "weight" && <Tinting />}
      </div>
      <section
        aria-label="The pot"
        className="flex flex-col gap-4 border-ink bg-enamel p-4 max-lg:border-t-2 lg:min-h-[calc(100dvh-3.5rem)] lg:border-l-2"
      >
        <Scale recipe={recipe} catalogue={catalogue} want={want} onChange={setWant} />
        <MeasureChoice catalogue={catalogue} />
        {sheet.error && (
          <Alert>
            {sheet.error.message} {fault && <span className="font-normal">Allowed: {fault.allowed}.</span>}
          </Alert>
        )}
        {sheet.data && !sheet.error && (
          <Pot mix={sheet.data.mix} source={{ recipe, school, want }} kit={settings.data?.kit ?? ""} />
        )}
      </section>
    </div>
  );
}

/** Each share said both ways: of the whole, and beside one part of paint; and by weight. */
export function Shares({ sheet }: { sheet: Sheet }) {
  return (
    <>
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="narrow text-sm text-soft">
            <th className="py-1 font-semibold">Part</th>
            <th className="py-1 pl-3 text-right font-semibold">of the whole</th>
            <th className="py-1 pl-3 text-right font-semibold">to 1 of paint</th>
            <th className="py-1 pl-3 text-right font-semibold">of the weight</th>
          </tr>
        </thead>
        <tbody>
          {sheet.mix.parts.map((part, i) => (
            <tr key={part.component} className="border-t border-line align-baseline">
              <th className="py-1.5 font-semibold">
                <span
                  aria-hidden
                  className="mr-2 inline-block size-4 border border-ink align-[-2px]"
                  style={{ background: part.hex }}
                />
                {part.name}
                <span className="narrow block text-sm font-normal text-soft">
                  {sheet.recipe.components[i] && stated(sheet.recipe.components[i].amount)}
                  {sheet.recipe.components[i]?.note && `; ${sheet.recipe.components[i].note}`}
                </span>
              </th>
              <td className="numeral py-1.5 pl-3 text-right text-lg">{percent(part.share)}</td>
              <td className="numeral py-1.5 pl-3 text-right text-lg">
                {part.per_paint === null ? "–" : say(part.per_paint)}
              </td>
              <td className="numeral py-1.5 pl-3 text-right text-lg font-medium">
                {percent(part.share_by_weight)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sheet.contradictions.map((c) => (
        <Alert key={c.component} quiet>
          <strong>{c.says}</strong>
          {c.parts_for_stated && ` For ${percent(c.stated)} it would be ${say(c.parts_for_stated)} parts.`}
        </Alert>
      ))}
    </>
  );
}

function Limits({
  recipe,
  sheet,
  catalogue,
}: {
  recipe: Recipe;
  sheet: Sheet | undefined;
  catalogue: Catalogue;
}) {
  if (recipe.limits.length === 0) return null;
  const crossed = new Set(sheet?.limits.filter((l) => l.crossed).map((l) => l.reason));
  return (
    <div className="mt-4">
      <h3 className={LABEL}>Limits, of the whole as poured</h3>
      <ul>
        {recipe.limits.map((limit) => {
          const name = recipe.components.find((c) => c.id === limit.component)?.name ?? limit.component;
          const where = [
            ...limit.surfaces,
            ...limit.techniques.map((t) => catalogue.techniques.find((x) => x.slug === t)?.name ?? t),
          ].join(", ");
          return (
            <li
              key={limit.reason}
              className={`narrow mt-1.5 border-l-4 pl-2 text-sm ${crossed.has(limit.reason) ? "border-ink font-semibold" : "border-line"}`}
            >
              {crossed.has(limit.reason) && "Over the line. "}
              {name} {percent(limit.least)} to {percent(limit.most)}
              {where && ` on ${where}`}. <span className="text-soft">{limit.reason}</span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
