import { Tabs } from "radix-ui";
import type { Catalogue, LayerPot, Mix } from "../api/client";
import { useChip, useSeen } from "../api/look";
import { useSettings } from "../api/workshop";
import { Chip } from "../drawings/Chip";
import { Range, WetAndDry } from "../drawings/DryingStrip";
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
      className="flex flex-col gap-3 bg-enamel p-4 [@media(min-width:48rem)_and_(min-height:500px)]:sticky [@media(min-width:48rem)_and_(min-height:500px)]:top-0 [@media(min-width:48rem)_and_(min-height:500px)]:max-h-dvh [@media(min-width:48rem)_and_(min-height:500px)]:overflow-auto max-md:border-t-2 max-md:border-ink"
    >
      <MeasureChoice catalogue={catalogue} />
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
      {id && pots.length > 0 && <OnSurface open={open} zone={open.job.zones[zone]?.id ?? ""} layer={id} />}
    </section>
  );
}

/** What the pot makes on the surface: its picture, wet and dry. */
function OnSurface({ open, zone, layer }: { open: OpenJob; zone: string; layer: string }) {
  const chip = useChip({ job: open.job, zone, upto: layer }, 160);
  const film = useSeen(open.job, zone).data?.column.films.find((f) => f.layer === layer);
  if (!film) return null;
  return (
    <div className="grid grid-cols-[6.5rem_auto_1fr] gap-3 border-t-2 border-ink pt-3">
      <Chip
        address={chip.address}
        old={chip.old}
        says={`${film.dry.words}, an estimate`}
        className="w-full"
      />
      <WetAndDry film={film} className="w-16" />
      <p className="narrow text-sm">
        <strong className="block text-base first-letter:uppercase">{film.dry.words}</strong>
        On what lies beneath, {film.dries}: left wet, right dry. <Range shade={film.dry} />, an estimate.
      </p>
    </div>
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
