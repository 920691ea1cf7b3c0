import { useState } from "react";
import type { BetterEntry } from "../api/client";
import { betterDoc, useKnowBetter } from "../api/edits";
import { useBetter } from "../api/workshop";
import { useKept } from "../keep/hooks";
import { Choice, NumberField } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";
import { dayOf, lasts, say } from "../parts/say";

const KINDS: Record<BetterEntry["kind"], string> = {
  films: "how a coat dries",
  techniques: "a way of putting on",
  grounds: "a ground",
  tools: "a tool",
  reliefs: "a relief",
  preparations: "a preparation",
  pot_losses: "what stays in the pot",
  consistencies: "a consistency",
  recipes: "a mix",
};
const SOURCES = [
  { slug: "label", name: "the label" },
  { slug: "measured", name: "measured here" },
];

type BetterValue = BetterEntry["values"][number];
const shown = (value: number | null, unit: string) =>
  value === null ? "unknown" : unit === "min" ? lasts(value) : `${say(value)} ${unit}`;

/** Values of the book that the workshop knows better: from a label, or measured. Each can be put back. */
export function Better() {
  const better = useBetter();
  const [kind, setKind] = useState<BetterEntry["kind"]>("films");
  const [slug, setSlug] = useState("");
  if (!better.data) return null;
  const mine = better.data.filter((e) => e.kind === kind);
  const entry = mine.find((e) => e.slug === slug) ?? mine[0];
  const known = better.data.flatMap((e) =>
    e.values.filter((v) => v.source !== "starting value").map((v) => ({ e, v })),
  );
  return (
    <section aria-label="What labels say" className="mt-10 border-t-2 border-ink pt-4">
      <h2 className="wide text-base font-bold">What labels say</h2>
      <p className="narrow max-w-prose text-sm text-soft">
        The book's times and rates are starting values. A label beats them, and so does what was measured
        here: it counts in every job, and can be put back.
      </p>
      {known.length > 0 && (
        <ul aria-label="Known better" className="mt-2">
          {known.map(({ e, v }) => (
            <li key={e.kind + e.slug + v.field} className="border-t border-line py-1">
              <button
                type="button"
                className="min-h-11 text-left hover:underline"
                onClick={() => {
                  setKind(e.kind);
                  setSlug(e.slug);
                }}
              >
                {e.name}, {v.name.toLowerCase()}: <strong>{shown(v.value, v.unit)}</strong>{" "}
                <span className="narrow text-sm text-soft">
                  {v.source}; the book starts with {shown(v.starting, v.unit)}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 grid max-w-2xl gap-3 sm:grid-cols-2">
        <Choice
          label="Of"
          value={kind}
          options={Object.entries(KINDS).map(([k, name]) => ({ slug: k, name }))}
          onChange={(k) => setKind(k as BetterEntry["kind"])}
        />
        <Choice label="Which" value={entry?.slug ?? ""} options={mine} onChange={setSlug} />
      </div>
      {entry && (
        <ul aria-label={`Values of ${entry.name}`} className="mt-3 max-w-2xl">
          {entry.values.map((value) => (
            <One key={entry.kind + entry.slug + value.field} entry={entry} value={value} />
          ))}
        </ul>
      )}
    </section>
  );
}

function One({ entry, value }: { entry: BetterEntry; value: BetterValue }) {
  const know = useKnowBetter();
  const kept = useKept(betterDoc(entry, value.field));
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(value.value ?? value.least);
  const [source, setSource] = useState("label");
  const own = value.source !== "starting value";
  const of = { entry, field: value.field, name: value.name };
  function keep() {
    const on = dayOf();
    const body = { value: typed, source: source as "label" | "measured", on };
    know.mutate({ ...of, body }, { onSuccess: () => setOpen(false) });
  }
  return (
    <li className="border-t border-line py-1.5">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <span>
          <span className={LABEL}>{value.name}</span>
          <span className="numeral text-lg">{shown(value.value, value.unit)}</span>{" "}
          <span className="narrow text-sm text-soft">
            {kept.state === "kept here" ? "kept here, waiting for the workshop" : value.source}
          </span>
          {kept.says && <Alert quiet>{kept.says}</Alert>}
        </span>
        <span className="flex">
          <button
            type="button"
            className="press text-sm"
            aria-expanded={open}
            aria-label={`Known better: ${value.name}`}
            onClick={() => setOpen(!open)}
          >
            Known better
          </button>
          {own && (
            <button
              type="button"
              className="press -ml-0.5 text-sm"
              aria-label={`Use the starting value again: ${value.name}`}
              onClick={() => know.mutate({ ...of, body: null })}
            >
              Use the starting value again
            </button>
          )}
        </span>
      </div>
      {open && (
        <div className="mt-1 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <NumberField
            label={`${value.name} is`}
            value={typed}
            unit={value.unit}
            min={value.least}
            max={value.most}
            onChange={setTyped}
          />
          <Choice label="says" value={source} options={SOURCES} onChange={setSource} />
          <button type="button" className="press press-strong" onClick={keep}>
            Keep
          </button>
        </div>
      )}
    </li>
  );
}
