import { Tabs } from "radix-ui";
import type { Catalogue, LayerPot, Mix } from "../api/client";
import { useSettings } from "../api/workshop";
import { ml } from "../parts/say";
import { MeasureChoice } from "../pot/MeasureChoice";
import { Pot } from "../pot/Pot";
import type { OpenJob } from "./useJob";

interface PotColumnProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

/** The pot, or pots, that the layer is laid from: the batches of the sheet, seen from one layer. */
export function PotColumn({ open, catalogue, zone, layer }: PotColumnProps) {
  const id = open.job.zones[zone]?.layers[layer]?.id;
  const pots = open.plan.zones[zone]?.layers.find((x) => x.layer === id)?.pots ?? [];
  return (
    <section
      id="pot"
      aria-label="The pot"
      className="flex flex-col gap-3 bg-enamel p-4 max-lg:border-t-2 max-lg:border-ink"
    >
      <MeasureChoice catalogue={catalogue} onChosen={open.session.replan} />
      {pots.length > 1 ? (
        <Tabs.Root key={pots[0]?.batch} defaultValue={pots[0]?.batch ?? ""}>
          <Tabs.List aria-label="Pots" className="mb-3 flex flex-wrap gap-2">
            {pots.map((pot) => (
              <Tabs.Trigger key={pot.batch} value={pot.batch} className="press flex items-center gap-2">
                <span
                  aria-hidden
                  className="size-5 border border-ink"
                  style={{ background: colourOf(pot.mix) }}
                />
                {pot.label || "Pot"}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          {pots.map((pot) => (
            <Tabs.Content key={pot.batch} value={pot.batch}>
              <OnePot pot={pot} open={open} />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      ) : pots[0] ? (
        <OnePot pot={pots[0]} open={open} />
      ) : (
        <p className="my-auto text-center text-lg text-soft">{open.plan.next.says}</p>
      )}
    </section>
  );
}

function OnePot({ pot, open }: { pot: LayerPot; open: OpenJob }) {
  const settings = useSettings();
  return (
    <>
      {(pot.times > 1 || pot.others.length > 0) && (
        <p className="narrow mb-3 border-l-4 border-ink pl-2">
          {pot.times > 1 && <strong>{pot.times} pots like this, one after the other. </strong>}
          {pot.others.length > 0 && (
            <>
              {ml(pot.ml)} of it for this layer; the same pot serves {pot.others.join("; ").toLowerCase()}.
            </>
          )}
        </p>
      )}
      <Pot
        mix={pot.mix}
        source={{ job: open.job, batch: pot.batch }}
        kit={settings.data?.kit ?? ""}
        rough={open.plan.rough}
      />
    </>
  );
}

const colourOf = (mix: Mix) => mix.parts.find((p) => p.role === "paint")?.hex ?? mix.parts[0]?.hex ?? "#fff";
