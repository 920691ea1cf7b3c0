import { Link, useParams } from "react-router";
import {
  type Amount,
  type Catalogue,
  type Component,
  NoAnswer,
  type PotWant,
  type Recipe,
  Refused,
} from "../api/client";
import { usePutRecipe } from "../api/edits";
import { useSheet } from "../api/queries";
import { useCatalogue, useSettings } from "../api/workshop";
import { KeptWord } from "../keep/KeptWord";
import { Choice, NumberField } from "../parts/fields";
import { Alert, LABEL, Loading } from "../parts/notices";
import { newId, percent } from "../parts/say";
import { TextField } from "../parts/TextField";
import { readWithin } from "../parts/typed";
import { useDraft } from "../parts/useDraft";
import { usePlace } from "../parts/usePlace";
import { Pot } from "../pot/Pot";
import { Shares } from "./RecipeView";
import { isOwn } from "./words";

const WANT: PotWant = { by: "total", ml: 250 };
const KINDS = [
  { slug: "volume-parts", name: "parts by volume" },
  { slug: "weight-parts", name: "parts by weight" },
  { slug: "volume-share", name: "share of the whole" },
  { slug: "weight-share", name: "share of the weight" },
  { slug: "dose", name: "dose" },
];

/** A recipe of one's own, being changed: worked out as it is typed, kept as soon as it is sound. */
export function ChangeView() {
  const { slug } = useParams();
  const catalogue = useCatalogue();
  const recipe = catalogue.data?.recipes.find((r) => r.slug === slug);
  if (!catalogue.data) return <Loading>Opening the recipe…</Loading>;
  if (!recipe || !isOwn(catalogue.data, recipe.slug))
    return <p className="p-6">Only a recipe of your own can be changed. Copy one first.</p>;
  return <Form key={recipe.slug} saved={recipe} catalogue={catalogue.data} />;
}

function Form({ saved, catalogue }: { saved: Recipe; catalogue: Catalogue }) {
  usePlace(saved.name);
  const put = usePutRecipe();
  const {
    draft: recipe,
    change,
    kept,
    undo,
  } = useDraft(saved, catalogue.own_recipes[saved.slug] ?? 0, put.mutateAsync);
  const settings = useSettings();
  const sheet = useSheet(recipe, "", WANT, settings.data?.measures ?? "");
  const changeComponent = (id: string, part: Partial<Component>) =>
    change({ components: recipe.components.map((c) => (c.id === id ? { ...c, ...part } : c)) });
  const error = [sheet.error, put.error].find((e) => e instanceof Refused);
  const fault = error?.problem.faults?.[0];

  function add(slug: string) {
    const material = catalogue.materials.find((m) => m.slug === slug);
    if (!material) return;
    const id = recipe.components.some((c) => c.id === slug) ? newId() : slug;
    const name = material.name.charAt(0).toUpperCase() + material.name.slice(1);
    const amount: Amount = { by: "volume-parts", parts: 1 };
    const component = {
      id,
      name,
      material: slug,
      role: material.role,
      amount,
      stage: "",
      stated_share: null,
      note: "",
    };
    change({ components: [...recipe.components, component] });
  }

  function takeOut(id: string) {
    change({
      components: recipe.components.filter((c) => c.id !== id),
      limits: recipe.limits.filter((l) => l.component !== id),
      schools: [],
      dial: recipe.dial === id ? null : (recipe.dial ?? null),
    });
  }

  return (
    <div className="grid lg:grid-cols-[minmax(0,1fr)_minmax(26rem,34rem)]">
      <div className="min-w-0 p-4 sm:p-6">
        <Link to={`/book/${recipe.slug}`} className="inline-flex min-h-11 items-center underline">
          Back to the recipe
        </Link>
        <h1 className="sr-only">Change {recipe.name}</h1>
        <TextField label="Name" value={recipe.name} required strong onChange={(name) => change({ name })} />
        <TextField
          label="What it looks like"
          value={recipe.looks}
          max={500}
          onChange={(looks) => change({ looks })}
        />
        {error ? (
          <p role="status" className="narrow mt-2 text-sm text-soft">
            Not saved: it must add up first.
          </p>
        ) : (
          <KeptWord doc={`recipe/${recipe.slug}`} kept={kept} undo={undo} />
        )}
        {error && (
          <Alert>
            {error.message} {fault && <span className="font-normal">Allowed: {fault.allowed}.</span>}
          </Alert>
        )}
        <ol className="mt-4">
          {recipe.components.map((component) => (
            <li key={component.id} className="border-t-2 border-ink py-3">
              <div className="grid items-end gap-2 sm:grid-cols-[1fr_11rem_8rem_8rem_auto]">
                <TextField
                  label="Part"
                  value={component.name}
                  required
                  onChange={(name) => changeComponent(component.id, { name })}
                />
                <Choice
                  label="given as"
                  value={component.amount.by}
                  options={KINDS.filter((k) => k.slug !== "dose" || recipe.components.length > 1)}
                  onChange={(by) => changeComponent(component.id, { amount: as(by, component, recipe) })}
                />
                <AmountField
                  amount={component.amount}
                  onChange={(amount) => changeComponent(component.id, { amount })}
                />
                <StatedShare
                  share={component.stated_share ?? null}
                  onChange={(stated_share) => changeComponent(component.id, { stated_share })}
                />
                <button
                  type="button"
                  className="press"
                  aria-label={`Take out ${component.name}`}
                  disabled={recipe.components.length < 2}
                  onClick={() => takeOut(component.id)}
                >
                  ×
                </button>
              </div>
            </li>
          ))}
        </ol>
        <div className="grid max-w-2xl grid-cols-1 gap-3 sm:grid-cols-2">
          <Choice
            label="Dries to"
            value={recipe.film}
            options={[{ slug: "", name: "as its materials suggest" }, ...catalogue.films]}
            onChange={(film) => change({ film })}
          />
          <Choice
            label="Add a part"
            value=""
            options={[
              { slug: "", name: "choose a material" },
              ...catalogue.materials.map((m) => ({ slug: m.slug, name: m.name })),
            ]}
            onChange={add}
          />
        </div>
        <div className="mt-6 max-w-xl">{sheet.data && <Shares sheet={sheet.data} />}</div>
      </div>
      <section aria-label="The pot" className="border-ink bg-enamel p-4 max-lg:border-t-2 lg:border-l-2">
        {sheet.error instanceof NoAnswer && <p className="text-soft">Waiting for the workshop…</p>}
        {sheet.data && !sheet.error && (
          <Pot
            mix={sheet.data.mix}
            source={{ recipe, school: "", want: WANT }}
            kit={settings.data?.kit ?? ""}
          />
        )}
      </section>
    </div>
  );
}

function as(by: string, component: Component, recipe: Recipe): Amount {
  const other = recipe.components.find((c) => c.id !== component.id)?.id ?? "";
  switch (by) {
    case "weight-parts":
      return { by, parts: 1 };
    case "volume-share":
      return { by, share: 0.1 };
    case "weight-share":
      return { by, share: 0.05 };
    case "dose":
      return { by, ml: 2.5, per_ml: 60, of: other };
    default:
      return { by: "volume-parts", parts: 1 };
  }
}

function AmountField({ amount, onChange }: { amount: Amount; onChange: (amount: Amount) => void }) {
  switch (amount.by) {
    case "volume-parts":
    case "weight-parts":
      return (
        <NumberField
          label="Amount"
          value={amount.parts}
          unit="parts"
          min={0}
          max={10000}
          onChange={(parts) => onChange({ ...amount, parts })}
        />
      );
    case "volume-share":
    case "weight-share":
      return (
        <NumberField
          label="Amount"
          value={Math.round(amount.share * 10000) / 100}
          unit="%"
          min={0}
          max={99}
          onChange={(share) => onChange({ ...amount, share: share / 100 })}
        />
      );
    case "dose":
      return (
        <NumberField
          label={`ml for ${amount.per_ml} ml of ${amount.of}`}
          value={amount.ml}
          unit="ml"
          min={0}
          max={10000}
          onChange={(ml) => onChange({ ...amount, ml })}
        />
      );
  }
}

/** What somebody wrote beside the parts; it is checked against what the parts make. */
function StatedShare({
  share,
  onChange,
}: {
  share: number | null;
  onChange: (share: number | null) => void;
}) {
  return (
    <label className={LABEL}>
      also written as
      <input
        className="tape numeral w-full text-lg text-ink"
        inputMode="decimal"
        placeholder="– %"
        defaultValue={share === null ? "" : percent(share)}
        onChange={(e) => {
          const [said] = readWithin(e.target.value.replace("%", ""), 0, 99.99);
          onChange(said === undefined ? null : said / 100);
        }}
      />
    </label>
  );
}
