import type { Catalogue, MixSheet, WhatIf } from "../api/client";
import { useChoose } from "../api/edits";
import { useSettings } from "../api/workshop";
import type { OpenJob } from "../job/useJob";
import { Choice, Stepper } from "../parts/fields";
import { Alert } from "../parts/notices";
import { amount, lasts, newId, percent } from "../parts/say";

interface WhatIfPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  /** The zone on the screen: its layers can be tried with other coats. */
  zone: number;
  sheets: { now: MixSheet; then?: MixSheet | null };
  tried: WhatIf | null;
  onTry: (tried: WhatIf | null) => void;
  /** A kit to try: the batch that is open is measured with it. */
  kit: string;
  onKit: (kit: string) => void;
}

/** Where there is room it is open. */
const WIDE = window.matchMedia("(min-width: 64rem)");

/** Try other coats, margin, vessel, pace or room, and see what moves before keeping it. */
export function WhatIfPanel(props: WhatIfPanelProps) {
  const { open, catalogue, zone: index, sheets, tried, onTry, kit, onKit } = props;
  const settings = useSettings();
  const choose = useChoose();
  const chosen = settings.data;
  if (!chosen) return null;
  const zone = open.job.zones[index];
  const layers = zone?.layers ?? [];
  const margin = tried?.margin ?? layers[0]?.margin ?? 0.1;
  const pace = tried?.pace ?? chosen.paces[""] ?? 1;
  const warm = tried?.temperature_c ?? chosen.temperature_c;
  const damp = tried?.humidity ?? chosen.humidity;
  const coats = tried?.coats ?? {};
  const change = (part: Partial<WhatIf>) => onTry({ coats, ...tried, ...part } as WhatIf);
  const { now, then } = sheets;

  /** What was tried becomes so: coats and margin in the job, the rest in the workshop. */
  function keep() {
    if (!chosen) return;
    if (tried)
      void open.decide("what was tried", {
        edit: "what if",
        seed: newId(),
        coats,
        margin: tried.margin ?? null,
      });
    choose.mutate({
      ...chosen,
      kit: kit || chosen.kit,
      vessel: tried?.vessel ?? chosen.vessel,
      paces: tried?.pace ? { ...chosen.paces, "": tried.pace } : chosen.paces,
      temperature_c: warm,
      humidity: damp,
    });
    onTry(null);
    onKit("");
  }

  return (
    <details className="border-t-2 border-ink" open={tried !== null || kit !== "" || WIDE.matches}>
      <summary className="min-h-11 py-2 font-semibold">What if…</summary>
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="Largest vessel"
          value={tried?.vessel ?? chosen.vessel}
          options={catalogue.vessels}
          onChange={(vessel) => change({ vessel })}
        />
        <Choice label="Another kit" value={kit || chosen.kit} options={catalogue.kits} onChange={onKit} />
        <Stepper
          label="Your pace"
          value={pace}
          min={0.25}
          max={4}
          step={0.25}
          shown={`× ${pace}`}
          onChange={(p) => change({ pace: Math.round(p * 100) / 100 })}
        />
        <Stepper
          label="Margin"
          value={margin}
          min={0}
          max={1}
          step={0.05}
          shown={percent(margin)}
          onChange={(m) => change({ margin: Math.round(m * 100) / 100 })}
        />
        <Stepper
          label="The room, °C"
          value={warm}
          min={4}
          max={36}
          step={2}
          shown={`${warm} °C`}
          onChange={(temperature_c) => change({ temperature_c })}
        />
        <Stepper
          label="and humid"
          value={damp}
          min={0.2}
          max={0.95}
          step={0.05}
          shown={percent(damp)}
          onChange={(h) => change({ humidity: Math.round(h * 100) / 100 })}
        />
        {layers.map((layer) => (
          <Stepper
            key={layer.id}
            label={`Coats: ${zone?.name}, ${(catalogue.recipes.find((r) => r.slug === layer.recipe)?.name ?? layer.recipe).replace(", as bought", "")}`}
            value={coats[layer.id] ?? layer.coats}
            min={1}
            max={catalogue.caps.coats}
            onChange={(n) => change({ coats: { ...coats, [layer.id]: n } })}
          />
        ))}
      </div>
      {tried && then && (
        <table className="mt-3 w-full">
          <caption className="sr-only">The sheet as it is, and as it would be</caption>
          <thead className="narrow text-left text-sm text-soft">
            <tr>
              <td />
              <th scope="col">now</th>
              <th scope="col">then</th>
            </tr>
          </thead>
          <tbody>
            <Moves name="to mix" from={volume(now)} to={volume(then)} />
            <Moves name="batches" from={String(now.batches.length)} to={String(then.batches.length)} />
            <Moves name="first to last" from={lasts(now.elapsed_h * 60)} to={lasts(then.elapsed_h * 60)} />
            <Moves name="problems" from={String(now.problems.length)} to={String(then.problems.length)} />
          </tbody>
        </table>
      )}
      {then?.problems.map((p) => (
        <Alert key={p.says} quiet>
          {p.says}
        </Alert>
      ))}
      {(tried || kit) && (
        <div className="mt-3 flex [&>*+*]:-ml-0.5">
          <button type="button" className="press press-strong" onClick={keep}>
            Keep it
          </button>
          <button
            type="button"
            className="press"
            onClick={() => {
              onTry(null);
              onKit("");
            }}
          >
            As it was
          </button>
        </div>
      )}
    </details>
  );
}

function volume(sheet: MixSheet): string {
  const said = amount(sheet.mixed_ml, "ml");
  return `${said.value} ${said.unit}`;
}

function Moves({ name, from, to }: { name: string; from: string; to: string }) {
  const moved = from !== to;
  return (
    <tr className="border-t border-line">
      <th scope="row" className="narrow py-1 text-left text-sm font-semibold">
        {name}
      </th>
      <td className="numeral text-lg">{from}</td>
      <td className={`numeral text-lg ${moved ? "border-l-8 border-ink pl-2" : "text-soft"}`}>{to}</td>
    </tr>
  );
}
