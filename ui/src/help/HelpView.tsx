import { useEffect } from "react";
import { useLocation } from "react-router";
import { useCatalogue } from "../api/workshop";
import { canKeep } from "../keep/away";
import { Choice } from "../parts/fields";
import { show, useShown } from "../parts/settings";
import { Tick } from "../parts/Ticks";
import { usePlace } from "../parts/usePlace";
import { SystemChoice } from "../pot/MeasureChoice";
import { ABOUT } from "./about";
import { KeyList } from "./Shortcuts";

const LIGHTS = [
  { slug: "device", name: "as this device has it" },
  { slug: "day", name: "by day" },
  { slug: "evening", name: "in the evening" },
];

/** How this works, the words of the trade, the keys, and how this device shows Lumso. */
export function HelpView() {
  usePlace("Help");
  const catalogue = useCatalogue();
  const shown = useShown();
  const { hash } = useLocation();
  const terms = catalogue.data?.terms ?? [];
  const there = terms.length > 0;
  useEffect(() => {
    if (there && hash) document.getElementById(hash.slice(1))?.scrollIntoView({ block: "center" });
  }, [hash, there]);
  return (
    <div className="mx-auto grid max-w-6xl gap-x-12 gap-y-8 px-4 py-6 sm:px-8 lg:grid-cols-[1fr_20rem]">
      <div className="flex min-w-0 flex-col gap-8">
        <section>
          <h1 className="wide text-xl font-bold">How this works</h1>
          <dl className="mt-3 max-w-prose">
            {ABOUT.map((one) => (
              <div
                key={one.of}
                id={one.of}
                className={`border-t border-line py-2 ${hash === `#${one.of}` ? "bg-tape" : ""}`}
              >
                <dt className="font-semibold">{one.name}</dt>
                <dd>{one.says}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-3 max-w-prose">
            All of it is saved as you go, and undone step by step. Numbers are estimates from starting values:
            a label beats them, and your own test board beats both.
          </p>
        </section>
        <section aria-labelledby="words">
          <h2 id="words" className="wide text-lg font-bold">
            Words of the trade
          </h2>
          <dl>
            {terms.map((t) => (
              <div
                key={t.slug}
                id={t.slug}
                className={`grid gap-x-6 border-t border-line py-2 sm:grid-cols-[10rem_1fr] ${hash === `#${t.slug}` ? "bg-tape" : ""}`}
              >
                <dt className="font-semibold">{t.name}</dt>
                <dd>{t.says}</dd>
              </div>
            ))}
          </dl>
        </section>
      </div>
      <div className="flex flex-col gap-8">
        <section aria-labelledby="device">
          <h2 id="device" className="wide text-lg font-bold">
            On this device
          </h2>
          <div className="mt-2 flex flex-col gap-3">
            <Choice
              label="Light"
              value={shown.light}
              options={LIGHTS}
              onChange={(light) => show({ light: light as typeof shown.light })}
            />
            <p className="narrow text-sm">
              {canKeep()
                ? "This device keeps Lumso: it opens with what it last showed while the server is away, and can be added to the home screen from the browser’s menu."
                : "Over plain http from another machine this device cannot open Lumso while the server is away, keep its screen awake, or record by voice. Start it with lumso serve --host 0.0.0.0 --tls, and open the address it shows."}
            </p>
            <Tick label="Single keys go to places" value={shown.keys} onChange={(keys) => show({ keys })} />
          </div>
        </section>
        <section aria-labelledby="workshop">
          <h2 id="workshop" className="wide text-lg font-bold">
            In the whole workshop
          </h2>
          <div className="mt-2">{catalogue.data && <SystemChoice catalogue={catalogue.data} />}</div>
          <p className="narrow mt-1 text-sm text-soft">
            A length without a unit is in inches where the measures are US ones, in millimetres elsewhere.
            What was typed before keeps its own.
          </p>
        </section>
        <section aria-labelledby="keys">
          <h2 id="keys" className="wide text-lg font-bold">
            Keys
          </h2>
          <KeyList />
        </section>
      </div>
    </div>
  );
}
