import { useAsked } from "../api/asking";
import type { Asked, Catalogue } from "../api/client";
import { useForms } from "../api/forms";
import { useCatalogue } from "../api/workshop";
import { groundOptions, recipeOptions } from "../book/options";
import { RecipeChip } from "../drawings/Chip";
import { GritAdvice, PrepAdvice } from "../finish/AdvicePanel";
import { Sealers } from "../finish/Sealers";
import { TOUCHES } from "../job/UsePanel";
import { ChooserField } from "../parts/ChooserField";
import { Failure } from "../parts/Failure";
import { Loading } from "../parts/notices";
import { Tick, Ticks } from "../parts/Ticks";
import { useAddress } from "../parts/useAddress";
import { usePlace } from "../parts/usePlace";

/** Which sealer, which grit, what first, how many coats: from three questions, with no job. */
export function AskView() {
  const catalogue = useCatalogue();
  usePlace("Ask");
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!catalogue.data) return <Loading>Opening the advice…</Loading>;
  return <Ask catalogue={catalogue.data} />;
}

function Ask({ catalogue }: { catalogue: Catalogue }) {
  const forms = useForms();
  const [form, setForm] = useAddress("piece", "side-table");
  const [ground, setGround] = useAddress("ground", "");
  const [on, setOn] = useAddress("on", "");
  const [stands, setStands] = useAddress("stands", "");
  const [outdoors, setOutdoors] = useAddress("outdoors", "");
  const touched = stands.split(",").filter(Boolean) as NonNullable<Asked["touched_by"]>;
  const [kind, slug] = [on.slice(0, on.indexOf("/")), on.slice(on.indexOf("/") + 1)];
  const asked: Asked = {
    form,
    ground,
    recipe: kind === "recipe" ? slug : "",
    finish: kind === "finish" ? slug : "",
    touched_by: touched,
    place: outdoors ? ["outdoors"] : [],
  };
  const said = useAsked(asked, on !== "");
  const becomes = [
    ...recipeOptions(catalogue).map((r) => ({ ...r, slug: `recipe/${r.slug}` })),
    ...catalogue.finishes.map((f) => ({
      slug: `finish/${f.slug}`,
      name: f.name,
      says: f.looks,
      group: "finish",
    })),
  ];
  return (
    <div className="mx-auto grid max-w-6xl gap-x-10 gap-y-4 px-4 py-6 sm:px-8 lg:grid-cols-[22rem_1fr]">
      <div className="flex flex-col gap-4">
        <h1 className="wide text-xl font-bold">Ask about a finish</h1>
        <ChooserField
          label="What goes on it"
          of="becomes"
          value={on}
          empty="choose a mix or a finish"
          options={becomes}
          picture={(o) =>
            o.slug.startsWith("recipe/") ? (
              <span className="w-10">
                <RecipeChip recipe={o.slug.slice("recipe/".length)} />
              </span>
            ) : (
              <span className="w-10" />
            )
          }
          onChoose={setOn}
        />
        <ChooserField
          label="What it is made of, and what is on it now"
          of="ground"
          value={ground}
          empty="not known"
          options={groundOptions(catalogue)}
          picture={(o) => <span className="block size-8 border border-line" style={{ background: o.hex }} />}
          onChoose={setGround}
        />
        <ChooserField
          label="On a piece like a"
          of="form"
          value={form}
          options={(forms.data ?? []).map((f) => ({
            slug: f.form.slug,
            name: f.form.name,
            words: f.form.words,
          }))}
          onChoose={setForm}
        />
        <div>
          <Tick
            label="It stands outdoors"
            value={outdoors !== ""}
            onChange={(yes) => setOutdoors(yes ? "yes" : "")}
          />
          <Ticks
            legend="It must stand"
            options={TOUCHES}
            value={touched}
            onChange={(next) => setStands(next.join(","))}
          />
        </div>
      </div>
      <div aria-live="polite" className="min-w-0">
        {on === "" && (
          <p className="text-lg text-soft">Say what goes on it; the answers come as you answer.</p>
        )}
        {said.error && <Failure error={said.error} onRetry={() => void said.refetch()} />}
        {on !== "" && said.data && (
          <div className="flex flex-col gap-5">
            <Sealers advice={said.data} />
            <PrepAdvice advice={said.data} />
            <Coats advice={said.data} />
            <GritAdvice advice={said.data} />
          </div>
        )}
      </div>
    </div>
  );
}

function Coats({ advice }: { advice: NonNullable<ReturnType<typeof useAsked>["data"]> }) {
  if (!advice.coats.length) return null;
  return (
    <section>
      <h2 className="wide font-bold">How many coats to cover?</h2>
      <ul>
        {advice.coats.map((c) => (
          <li key={c.layer} className="border-t border-line py-2">
            {c.name} over {c.over.toLowerCase()}:{" "}
            <strong>
              {c.coats === null
                ? "more than a dozen; a grounding colour first"
                : c.at_most === c.coats
                  ? `about ${c.coats}`
                  : `about ${c.coats} to ${c.at_most ?? "more than a dozen"}`}
            </strong>
            . An estimate.
          </li>
        ))}
      </ul>
    </section>
  );
}
