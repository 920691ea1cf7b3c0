import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Link } from "react-router";
import { answer, api, type Catalogue, type Job, type Layer } from "../api/client";
import type { components } from "../api/generated";
import { PhotoColour } from "../board/PhotoColour";
import { changeLayer } from "../job/change";
import type { OpenJob } from "../job/useJob";
import { NumberField } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { ml, percent } from "../parts/say";
import { Tick } from "../parts/Ticks";

type Reply = components["schemas"]["Matched"];
type Measured = components["schemas"]["Measured"];
type ShelfPaint = components["schemas"]["ShelfPaint-Input"];

interface MatchProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

const HEX = /^#?[0-9a-f]{6}$/i;

/** Every colour the job has a name for, once. */
function named(job: Job): ShelfPaint[] {
  const found = new Map<string, ShelfPaint>();
  for (const layer of job.zones.flatMap((z) => z.layers))
    for (const colours of [layer.colours, ...layer.pots.map((p) => p.colours)])
      for (const c of Object.values(colours))
        if (c.name && !found.has(c.hex))
          found.set(c.hex, {
            slug: `named-${c.hex.slice(1)}`,
            name: c.name,
            hex: c.hex,
            hiding: 0,
            scattering: 0,
          });
  return [...found.values()];
}

/** A wanted colour, and what on the shelf comes nearest to it: in shares, in spoons, with how sure that is. */
export function Match({ open, catalogue, zone: index, layer: at }: MatchProps) {
  const id = useId();
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const recipe = catalogue.recipes.find((r) => r.slug === layer?.recipe);
  const paint = recipe?.components.find((c) => c.role === "paint");
  const [typed, setTyped] = useState("#8aa09a");
  const [batch, setBatch] = useState(60);
  const [lies, setLies] = useState(false);
  const [photo, setPhoto] = useState<string | null>(null);
  const [within, setWithin] = useState(0);
  const type = (text: string) => {
    setTyped(text);
    setWithin(0);
  };
  const [alsoNamed, setAlsoNamed] = useState(false);
  const wanted = HEX.test(typed) ? `#${typed.replace("#", "").toLowerCase()}` : null;
  const onto = lies && zone && layer && paint ? { job: open.job, zone: zone.id, layer: layer.id } : null;
  const paints = alsoNamed ? named(open.job).slice(0, 20) : [];
  const found = useQuery<Reply>({
    queryKey: ["match", wanted, batch, onto, paints],
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/look/match", {
          body: { wanted: wanted ?? "#000000", ml: batch, onto, paints, without: [] },
          signal,
        }),
      ),
    enabled: wanted !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
  const said = found.data;

  function use(parts: Reply["matches"][number]["parts"]) {
    if (!paint) return;
    const tints = parts.map((p) => ({
      name: p.name,
      hex: p.hex,
      parts: Math.max(0.1, Math.round(p.share * 1000) / 10),
    }));
    const mixed = (x: Layer): Layer => ({ ...x, tints: { ...x.tints, [paint.id]: tints } });
    open.edit((job) => changeLayer(job, index, at, mixed));
  }

  return (
    <div className="flex flex-col gap-4">
      <div className="grid grid-cols-[auto_1fr_8rem] items-end gap-2">
        <label className={LABEL}>
          <span className="block">Wanted</span>
          <input
            type="color"
            className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
            value={wanted ?? "#000000"}
            onChange={(e) => type(e.target.value)}
          />
        </label>
        <div>
          <label htmlFor={id} className={LABEL}>
            or typed
          </label>
          <input
            id={id}
            className="tape w-full"
            value={typed}
            spellCheck={false}
            autoComplete="off"
            aria-invalid={wanted === null || undefined}
            aria-describedby={wanted === null ? `${id}-error` : undefined}
            onChange={(e) => type(e.target.value.trim())}
          />
        </div>
        <NumberField label="Batch" value={batch} unit="ml" min={5} max={5000} onChange={setBatch} />
      </div>
      {wanted === null && (
        <p
          id={`${id}-error`}
          role="alert"
          className="narrow border-l-4 border-ink pl-2 text-sm font-semibold"
        >
          {typed || "Nothing"} is no colour.{" "}
          <span className="font-normal">Allowed: six of 0–9 and a–f, as #8aa09a.</span>
        </p>
      )}
      <button
        type="button"
        className={`press text-sm ${photo === null ? "" : "press-strong"}`}
        aria-expanded={photo !== null}
        onClick={() => setPhoto(photo === null ? "" : null)}
      >
        From a photograph with a white card in it
      </button>
      {photo !== null && (
        <PhotoColour
          name={photo}
          within={catalogue.seen_within.photograph}
          onPhoto={setPhoto}
          onColour={(seen) => {
            setTyped(seen.hex);
            setWithin(seen.within);
          }}
        />
      )}
      {within > 0 && (
        <p className="narrow border-l-4 border-ink pl-2 text-sm">
          From a photograph: what is wanted is known no closer than ΔE {within}.
        </p>
      )}
      <div className="flex flex-wrap gap-x-6">
        {paint && (
          <Tick
            label={`as layer ${at + 1} lies: over what is beneath, sealed`}
            value={lies}
            onChange={setLies}
          />
        )}
        <Tick label="also the colours this job names" value={alsoNamed} onChange={setAlsoNamed} />
      </div>
      {found.error && (
        <p role="alert" className="border-l-4 border-ink pl-2 text-sm font-semibold">
          {found.error.message}
        </p>
      )}
      {said && wanted && (
        <>
          <p role="status" className="narrow border-t-2 border-ink pt-2 text-sm">
            Wanted: {said.words}. Searched {said.paints.length}{" "}
            {said.paints.length === 1 ? "paint" : "paints"}{" "}
            <Link to="/shelf" className="underline">
              on the shelf
            </Link>
            . {!said.near && <strong>Nothing near exists among them. </strong>}
            {said.closer}
          </p>
          <ol className="flex flex-col gap-3">
            {said.matches.map((m, i) => (
              <li key={m.parts.map((p) => p.slug).join("+")} className="border-2 border-ink">
                <div className="grid grid-cols-[6rem_1fr]">
                  <span aria-hidden className="flex min-h-24">
                    <span className="grow" style={{ background: said.wanted }} />
                    <span className="grow" style={{ background: m.shade.hex }} />
                  </span>
                  <div className="p-2">
                    <strong>
                      {apart(m.off, within)}
                      <span className="narrow font-normal">
                        , {m.shade.sure} (an estimate): {m.shade.words}
                      </span>
                    </strong>
                    <ul className="narrow text-sm">
                      {m.parts.map((p) => (
                        <li key={p.slug}>
                          <span className="numeral text-base">{percent(p.share)}</span> {p.name}
                        </li>
                      ))}
                    </ul>
                    {said.spoons[i] && <Spoons made={said.spoons[i]} wanted={batch} />}
                    {paint && (
                      <button type="button" className="press mt-1 text-sm" onClick={() => use(m.parts)}>
                        Mix layer {at + 1} of these
                      </button>
                    )}
                  </div>
                </div>
              </li>
            ))}
          </ol>
          <p className="narrow text-sm text-soft">
            Mix a spoonful, paint it on card, let it dry, seal it as the piece will be, and look in daylight.
          </p>
        </>
      )}
    </div>
  );
}

/** How far a mix is off, no closer than what is wanted is known. */
function apart(off: number, within: number): string {
  if (within > 0) return `Within ΔE ${Math.max(off, within).toFixed(1)}, as far as a photograph tells`;
  return off < 1 ? "No difference to be seen" : `ΔE ${off.toFixed(1)} off`;
}

function Spoons({ made, wanted }: { made: components["schemas"]["InSpoons"]; wanted: number }) {
  const fine = made.asked && made.asked.off <= 1;
  if (fine && made.asked) return <Way says={`In your spoons, ${ml(made.asked.total_ml)}`} way={made.asked} />;
  return (
    <div className="narrow text-sm">
      <p className="border-l-4 border-ink pl-2">
        Your spoons are too coarse for {ml(wanted)} of it
        {made.asked ? `: rounded it would be ${made.asked.off.toFixed(1)} ΔE off.` : "."}
      </p>
      {made.diluted && <Way says={`With a jar of tint, ${ml(made.diluted.total_ml)}`} way={made.diluted} />}
      {made.larger && <Way says={`Or a batch of ${ml(made.larger.total_ml)}`} way={made.larger} />}
    </div>
  );
}

function Way({ says, way }: { says: string; way: Measured }) {
  const line = (parts: Measured["parts"]) =>
    parts
      .map(
        (p) =>
          `${p.name} ${p.fillings.map((f) => `${f.count} × ${f.to_mark ? `${ml(f.ml)} in the ` : ""}${f.name}`).join(" + ")}`,
      )
      .join("; ");
  return (
    <p className="narrow text-sm">
      <strong>{says}:</strong> {line(way.parts)}.
      {way.jar.length > 0 && <span className="block">Stir the jar first: {line(way.jar)}.</span>}
    </p>
  );
}
