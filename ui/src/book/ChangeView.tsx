import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import {
  type Amount,
  type Catalogue,
  type Component,
  type PotWant,
  type Recipe,
  Refused,
} from "../api/client";
import { useCatalogue, usePutRecipe, useSettings, useSheet } from "../api/queries";
import { Choice, NumberField } from "../parts/fields";
import { newId, percent } from "../parts/say";
import { Pot } from "../pot/Pot";
import { Shares } from "./RecipeView";

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
  if (!catalogue.data) return <p className="p-6 text-soft">Opening the recipe…</p>;
  if (!recipe || !catalogue.data.own_recipes.includes(recipe.slug))
    return <p className="p-6">Only a recipe of your own can be changed. Copy one first.</p>;
  return <Form key={recipe.slug} saved={recipe} catalogue={catalogue.data} />;
}

function Form({ saved, catalogue }: { saved: Recipe; catalogue: Catalogue }) {
  const [recipe, setRecipe] = useState(saved);
  const settings = useSettings();
  const sheet = useSheet(recipe, "", WANT, settings.data?.measures ?? "");
  const put = usePutRecipe();
  const [kept, setKept] = useState(() => JSON.stringify(saved));
  const unkept = useRef<Recipe | null>(null);
  const text = JSON.stringify(recipe);
  unkept.current = text === kept ? null : recipe;
  const { mutate } = put;
  useEffect(() => {
    // What is typed is kept half a second later, and at once when the page is left.
    const keep = () => {
      const draft = unkept.current;
      if (draft) mutate(draft, { onSuccess: () => setKept(JSON.stringify(draft)) });
    };
    const timer = text === kept ? 0 : window.setTimeout(keep, 500);
    window.addEventListener("pagehide", keep);
    return () => {
      window.clearTimeout(timer);
      window.removeEventListener("pagehide", keep);
    };
  }, [text, kept, mutate]);
  useEffect(
    () => () => {
      if (unkept.current) mutate(unkept.current);
    },
    [mutate],
  );

  const change = (part: Partial<Recipe>) => setRecipe((now) => ({ ...now, ...part }));
  const changeComponent = (id: string, part: Partial<Component>) =>
    change({ components: recipe.components.map((c) => (c.id === id ? { ...c, ...part } : c)) });
  const error = sheet.error ?? put.error;
  const fault = error instanceof Refused ? error.problem.faults?.[0] : undefined;

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
        <label className="narrow block text-sm font-semibold text-soft">
          Name
          <input
            className="tape w-full text-lg font-bold text-ink"
            value={recipe.name}
            maxLength={120}
            onChange={(e) => e.target.value && change({ name: e.target.value })}
          />
        </label>
        <label className="narrow mt-3 block text-sm font-semibold text-soft">
          What it looks like
          <input
            className="tape w-full text-base text-ink"
            value={recipe.looks}
            onChange={(e) => change({ looks: e.target.value })}
          />
        </label>
        <p role="status" className="narrow mt-2 text-sm text-soft">
          {error ? "Not saved: it must add up first." : text === kept ? "Saved" : "Saving…"}
        </p>
        {error && (
          <p role="alert" className="mt-1 border-l-4 border-ink pl-2 font-semibold">
            {error.message} {fault && <span className="font-normal">Allowed: {fault.allowed}.</span>}
          </p>
        )}
        <ol className="mt-4">
          {recipe.components.map((component) => (
            <li key={component.id} className="border-t-2 border-ink py-3">
              <div className="grid items-end gap-2 sm:grid-cols-[1fr_11rem_8rem_8rem_auto]">
                <label className="narrow text-sm font-semibold text-soft">
                  Part
                  <input
                    className="tape w-full text-base text-ink"
                    value={component.name}
                    maxLength={120}
                    onChange={(e) =>
                      e.target.value && changeComponent(component.id, { name: e.target.value })
                    }
                  />
                </label>
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
        <div className="max-w-sm">
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
        {sheet.data && !sheet.error && <Pot mix={sheet.data.mix} kit={settings.data?.kit ?? ""} />}
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
    <label className="narrow text-sm font-semibold text-soft">
      also written as
      <input
        className="tape numeral w-full text-lg text-ink"
        inputMode="decimal"
        placeholder="– %"
        defaultValue={share === null ? "" : percent(share)}
        onChange={(e) => {
          const number = Number.parseFloat(e.target.value.replace(",", "."));
          onChange(Number.isFinite(number) && number >= 0 && number < 100 ? number / 100 : null);
        }}
      />
    </label>
  );
}
