import { type ReactNode, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useBeginJob } from "../api/changes";
import type { Begin, Catalogue, FormLine } from "../api/client";
import { Refused } from "../api/client";
import { useForms, useFormWith } from "../api/forms";
import { useCatalogue } from "../api/workshop";
import { groundOptions, recipeOptions } from "../book/options";
import { MiniPiece } from "../drawings/MiniPiece";
import { ANSWERS } from "../job/UsePanel";
import { Chooser } from "../parts/Chooser";
import { Failure } from "../parts/Failure";
import { Alert, LABEL, Loading } from "../parts/notices";
import { useArea } from "../parts/useArea";
import { usePlace } from "../parts/usePlace";

/** What was answered so far. */
type Told = { [K in keyof Begin]-?: Exclude<Begin[K], undefined> };
type Step = "piece" | "sizes" | "ground" | "lead" | "becomes";

const ORDER: Step[] = ["piece", "sizes", "ground", "lead", "becomes"];

/** A new job: what it is, what it is made of now, what it should become. Each answer can be left for later. */
export function NewJobView() {
  const catalogue = useCatalogue();
  const forms = useForms();
  usePlace("New job");
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (forms.error) return <Failure error={forms.error} onRetry={() => void forms.refetch()} />;
  if (!catalogue.data || !forms.data) return <Loading>Opening a new job…</Loading>;
  return <NewJob catalogue={catalogue.data} forms={forms.data} />;
}

function NewJob({ catalogue, forms }: { catalogue: Catalogue; forms: FormLine[] }) {
  const [step, setStep] = useState<Step>("piece");
  const [told, setTold] = useState<Told>({
    form: "",
    sizes: "",
    ground: "",
    lead: "not tested",
    finish: "",
    recipe: "",
    name: "",
    ml: null,
  });
  const begin = useBeginJob();
  const { parts } = useArea();
  const navigate = useNavigate();
  const shape = useFormWith(told.form, told.sizes);
  const form = forms.find((f) => f.form.slug === told.form);
  const drawn = shape.data?.form.slug === told.form ? shape.data : form;
  const ground = catalogue.grounds.find((g) => g.slug === told.ground);

  const asksLead = (slug: string) =>
    (catalogue.grounds.find((g) => g.slug === (slug || "not-known"))?.traits ?? []).includes("may hide lead");
  const done = (part: Partial<Told>, next: Step) => {
    setTold((now) => ({ ...now, ...part }));
    setStep(next);
  };
  // One mix is shown as its pot; a finish as its layers, with what the ground added.
  const finish = (part: Partial<Told>) =>
    begin.mutate(
      { ...told, ...part },
      { onSuccess: (made) => navigate(`/jobs/${made.id}${part.recipe ? "/mix" : ""}`) },
    );

  const becomes = [
    ...catalogue.finishes
      .map((f) => ({
        slug: `finish/${f.slug}`,
        name: f.name,
        says: f.looks,
        group: "finish",
        suits: f.grounds.includes(told.ground),
      }))
      .sort((a, b) => Number(b.suits) - Number(a.suits)),
    ...recipeOptions(catalogue).map((r) => ({ ...r, slug: `recipe/${r.slug}`, suits: true })),
  ];
  const reached = (of: Step) => ORDER.indexOf(step) > ORDER.indexOf(of);

  return (
    <div className="mx-auto grid max-w-6xl gap-x-10 px-4 py-6 sm:px-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div className="flex min-w-0 flex-col gap-5">
        <h1 className="wide text-xl font-bold">New job</h1>
        <Asked
          says="What is it?"
          now={step === "piece"}
          answer={form?.form.name}
          onChange={() => setStep("piece")}
        >
          <Chooser
            label="What is it?"
            of="form"
            wide
            focused
            placeholder="bedside table, candlestick, shelf…"
            options={forms.map((f) => ({
              slug: f.form.slug,
              name: f.form.name,
              words: f.form.words,
              drawing: f.drawing,
            }))}
            picture={(o) =>
              o.drawing && o.drawing.width > 0 ? (
                <MiniPiece drawing={o.drawing} className="h-20 w-full shrink-0" />
              ) : (
                <span className="h-20 shrink-0" />
              )
            }
            onChoose={(slug) => done({ form: slug, sizes: "" }, "sizes")}
          />
        </Asked>
        {form && (
          <Asked
            says="How large?"
            now={step === "sizes"}
            answer={reached("sizes") ? told.sizes || "usual sizes, to be measured" : undefined}
            onChange={() => setStep("sizes")}
          >
            <SizesField
              form={drawn ?? form}
              typed={told.sizes}
              error={shape.error}
              onTyped={(sizes) => setTold((now) => ({ ...now, sizes }))}
              onDone={() => setStep("ground")}
            />
          </Asked>
        )}
        {form && (reached("sizes") || step === "ground") && (
          <Asked
            says="What is it made of, and what is on it now?"
            now={step === "ground"}
            answer={reached("ground") ? (ground?.name ?? "not known yet") : undefined}
            onChange={() => setStep("ground")}
            skip={() => done({ ground: "" }, asksLead("") ? "lead" : "becomes")}
            skipped="I do not know yet"
          >
            <Chooser
              label="What is it made of, and what is on it now?"
              of="ground"
              focused
              placeholder="raw pine, varnished, painted…"
              options={groundOptions(catalogue)}
              picture={(o) => (
                <span className="block size-9 border border-line" style={{ background: o.hex }} />
              )}
              onChoose={(slug) => done({ ground: slug }, asksLead(slug) ? "lead" : "becomes")}
            />
          </Asked>
        )}
        {asksLead(told.ground) && (reached("lead") || step === "lead") && (
          <Asked
            says="Lead in the old coat?"
            now={step === "lead"}
            answer={reached("lead") ? ANSWERS.find((a) => a.slug === told.lead)?.name : undefined}
            onChange={() => setStep("lead")}
          >
            <Lead now={told.lead} onAnswer={(lead) => done({ lead }, "becomes")} />
          </Asked>
        )}
        {step === "becomes" && (
          <Asked
            says="What should it become?"
            now
            onChange={() => setStep("becomes")}
            skip={() => finish({})}
            skipped="I will choose later"
          >
            <Chooser
              label="What should it become?"
              of="becomes"
              focused
              placeholder="chippy, lime, white wash, linen…"
              options={becomes}
              picture={(o) => <Becomes slug={o.slug} ground={told.ground} />}
              onChoose={(slug) => {
                const [kind, name] = [slug.slice(0, slug.indexOf("/")), slug.slice(slug.indexOf("/") + 1)];
                finish(kind === "finish" ? { finish: name } : { recipe: name });
              }}
            />
            <p className="narrow text-sm text-soft">Pictures are estimates.</p>
          </Asked>
        )}
        {begin.error && <Alert>{begin.error.message}</Alert>}
      </div>
      <aside aria-label="The piece so far" className="max-lg:hidden">
        {drawn?.drawing && step !== "piece" && (
          <div className="sticky top-4">
            <MiniPiece drawing={drawn.drawing} className="max-h-80 w-full" />
            <p className="mt-3">
              <span className="numeral text-2xl">{parts(drawn.area_m2).value}</span>{" "}
              {parts(drawn.area_m2).unit} to coat
            </p>
            <dl className="mt-2 grid grid-cols-[1fr_auto] gap-x-4">
              {drawn.sizes.map((s) => (
                <Size key={s.slug} name={s.name} typed={s.length.typed} usual={s.length.source === "usual"} />
              ))}
            </dl>
          </div>
        )}
      </aside>
    </div>
  );
}

function Size({ name, typed, usual }: { name: string; typed: string; usual: boolean }) {
  return (
    <>
      <dt className="narrow text-soft">{name}</dt>
      <dd className={`text-right ${usual ? "text-soft" : "bg-tape px-1 font-semibold"}`}>
        {usual && <span className="narrow text-sm">usual </span>}
        {typed}
      </dd>
    </>
  );
}

interface AskedProps {
  says: string;
  /** Whether it is the question of the moment. */
  now: boolean;
  answer?: string | undefined;
  onChange: () => void;
  skip?: () => void;
  skipped?: string;
  children: ReactNode;
}

/** A question with its answer, or with what answers it. */
function Asked({ says, now, answer, onChange, skip, skipped, children }: AskedProps) {
  if (!now)
    return (
      <section className="flex flex-wrap items-baseline gap-x-4 border-t border-line pt-2">
        <h2 className="narrow w-72 text-soft">{says}</h2>
        <p className="grow text-lg font-semibold first-letter:uppercase">{answer ?? "left open"}</p>
        <button
          type="button"
          className="min-h-11 px-2 underline"
          aria-label={`Change the answer to: ${says}`}
          onClick={onChange}
        >
          Change
        </button>
      </section>
    );
  return (
    <section className="flex max-h-[calc(100dvh-13rem)] min-h-72 flex-col border-t-4 border-ink pt-2">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-lg font-bold">{says}</h2>
        {skip && (
          <button type="button" className="min-h-11 px-2 underline" onClick={skip}>
            {skipped}
          </button>
        )}
      </div>
      {children}
    </section>
  );
}

interface SizesFieldProps {
  form: FormLine;
  typed: string;
  error: Error | null;
  onTyped: (typed: string) => void;
  onDone: () => void;
}

/** All sizes in one line, as they are said; what is not typed is as usual. */
function SizesField({ form, typed, error, onTyped, onDone }: SizesFieldProps) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const problem = typed && error instanceof Refused ? error.problem : null;
  const fault = problem?.faults?.[0];
  const asked = form.sizes.map((s) => s.name.toLowerCase());
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (!problem) onDone();
      }}
    >
      <label htmlFor="sizes" className={LABEL}>
        {asked.length
          ? `${asked.join(" × ")}; as many as you have measured`
          : "It has no sizes of its own: its parts have"}
      </label>
      <div className="mt-1 flex flex-wrap gap-2">
        <input
          ref={input}
          id="sizes"
          className="tape numeral min-w-0 grow basis-64 text-lg"
          value={typed}
          autoComplete="off"
          placeholder={form.sizes
            .slice(0, 3)
            .map((s) => s.length.typed.replace(/ mm$/, ""))
            .join(" × ")}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? "sizes-error" : "sizes-help"}
          onChange={(e) => onTyped(e.target.value)}
        />
        <button type="submit" className="press press-strong">
          {typed ? "That is its size" : "Take the usual sizes"}
        </button>
      </div>
      {problem ? (
        <div id="sizes-error">
          <Alert quiet>
            {fault?.says ?? problem.detail}{" "}
            {fault?.allowed && <span className="font-normal">Allowed: {fault.allowed}.</span>}
          </Alert>
          <div className="mt-1 flex gap-2">
            {(problem.readings ?? []).map((reading) => (
              <button key={reading} type="button" className="press" onClick={() => onTyped(reading)}>
                {reading}
              </button>
            ))}
          </div>
        </div>
      ) : (
        <p id="sizes-help" className="narrow mt-1 text-sm text-soft">
          Type them as you say them: 1200 × 400 × 18, or 48 by 16 in. Usual sizes are marked until you
          measure.
        </p>
      )}
    </form>
  );
}

type Answer = Told["lead"];

/** What is known of lead, before anything is planned that touches the old coat. */
function Lead({ now, onAnswer }: { now: Answer; onAnswer: (answer: Answer) => void }) {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <div>
      <p className="mb-2 max-w-prose">
        Old paint and varnish may hold lead. Until a test says otherwise Lumso takes it that it does, and says
        so wherever it would be sanded, scraped or heated.
      </p>
      <div className="flex flex-wrap gap-2">
        {ANSWERS.map((a, i) => (
          <button
            key={a.slug}
            ref={i === 0 ? first : undefined}
            type="button"
            className="press first-letter:uppercase"
            aria-pressed={a.slug === now}
            onClick={() => onAnswer(a.slug)}
          >
            {a.name}
          </button>
        ))}
      </div>
    </div>
  );
}

function Becomes({ slug, ground }: { slug: string; ground: string }) {
  const [kind, name] = [slug.slice(0, slug.indexOf("/")), slug.slice(slug.indexOf("/") + 1)];
  const address =
    kind === "finish"
      ? `/api/look/finishes/${name}?ground=${ground || "raw-pine"}`
      : `/api/look/recipes/${encodeURIComponent(name)}?px=96`;
  return (
    <img src={address} alt="" loading="lazy" className="size-16 border border-line bg-steel object-cover" />
  );
}
