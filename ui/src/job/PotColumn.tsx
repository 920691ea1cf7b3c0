import { Tabs } from "radix-ui";
import type { Catalogue, Mix } from "../api/client";
import { useSettings } from "../api/queries";
import { MeasureChoice } from "../pot/MeasureChoice";
import { Pot } from "../pot/Pot";
import type { OpenJob } from "./useJob";

interface PotColumnProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

/** The pot, or pots, the layer takes. */
export function PotColumn({ open, catalogue, zone, layer }: PotColumnProps) {
  const mixes = open.plan.zones[zone]?.layers[layer]?.mixes ?? [];
  const settings = useSettings();
  const kit = settings.data?.kit ?? "";
  return (
    <section
      id="pot"
      aria-label="The pot"
      className="flex flex-col gap-3 bg-enamel p-4 max-lg:border-t-2 max-lg:border-ink"
    >
      <MeasureChoice catalogue={catalogue} onChosen={open.replan} />
      {mixes.length > 1 ? (
        <Tabs.Root key={mixes[0]?.pot} defaultValue={mixes[0]?.pot ?? ""}>
          <Tabs.List aria-label="Pots" className="mb-3 flex flex-wrap gap-2">
            {mixes.map((mix) => (
              <Tabs.Trigger key={mix.pot} value={mix.pot} className="press flex items-center gap-2">
                <span
                  aria-hidden
                  className="size-5 border border-ink"
                  style={{ background: colourOf(mix) }}
                />
                {mix.pot_name || "Pot"}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          {mixes.map((mix) => (
            <Tabs.Content key={mix.pot} value={mix.pot}>
              <Pot mix={mix} kit={kit} rough={open.plan.rough} />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      ) : mixes[0] ? (
        <Pot mix={mixes[0]} kit={kit} rough={open.plan.rough} />
      ) : (
        <p className="my-auto text-center text-lg text-soft">{open.plan.next.says}</p>
      )}
    </section>
  );
}

const colourOf = (mix: Mix) => mix.parts.find((p) => p.role === "paint")?.hex ?? mix.parts[0]?.hex ?? "#fff";
