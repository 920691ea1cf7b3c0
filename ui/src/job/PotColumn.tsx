import { ToggleGroup } from "radix-ui";
import type { Catalogue, Mix, Part } from "../api/client";
import { useSetWorkshop, useWorkshop } from "../api/queries";
import { Jar } from "../drawings/Jar";
import { percent, say } from "../parts/say";
import { Why } from "../parts/Why";
import type { OpenJob } from "./useJob";

/** The pot: how much to mix, part by part, beside the jar it makes. */
export function PotColumn({ open, catalogue }: { open: OpenJob; catalogue: Catalogue }) {
  const mix = open.plan.zones[0]?.layers[0]?.mix;
  return (
    <section
      id="pot"
      aria-label="The pot"
      className="flex flex-col gap-3 bg-enamel p-4 max-lg:border-t-2 max-lg:border-ink"
    >
      <Measures open={open} catalogue={catalogue} />
      {mix ? (
        <Amounts mix={mix} />
      ) : (
        <p className="my-auto text-center text-lg text-soft">{open.plan.next.says}</p>
      )}
    </section>
  );
}

function Measures({ open, catalogue }: { open: OpenJob; catalogue: Catalogue }) {
  const workshop = useWorkshop();
  const set = useSetWorkshop();
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="Measures"
      className="flex flex-wrap"
      value={open.plan.measures}
      onValueChange={(measures) => {
        if (measures && workshop.data)
          set.mutate({ ...workshop.data, measures }, { onSuccess: () => open.replan() });
      }}
    >
      {catalogue.systems.map((system, i) => (
        <ToggleGroup.Item
          key={system.slug}
          value={system.slug}
          className={`press grow text-sm ${i ? "-ml-0.5" : ""}`}
        >
          {system.name.replace(/ \(.*| customary/, "")}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

function Amounts({ mix }: { mix: Mix }) {
  return (
    <div className="grid grow grid-cols-[7.5rem_minmax(0,1fr)] gap-x-4 sm:grid-cols-[14rem_minmax(0,1fr)] sm:gap-x-6">
      <div className="h-[min(34rem,calc(100dvh-14rem))] min-h-72">
        <Jar jar={mix.jar} />
      </div>
      <div className="flex min-w-0 flex-col">
        <span className="narrow text-sm font-semibold text-soft">Mix</span>
        <Why figure={mix.volume} name="Mix">
          <span className="numeral text-3xl">{say(mix.volume.value)}</span>
          <span className="text-xl font-semibold">ml</span>
        </Why>
        <p className="narrow mt-1 mb-4 text-sm text-soft">
          {say(mix.mass_g)} g, in a {mix.jar.vessel}. About as thick as {mix.thickness.word} (an estimate).
        </p>
        <ol className="flex flex-col-reverse">
          {mix.parts.map((part, i) => (
            <PartLine key={part.component} part={part} order={i + 1} />
          ))}
        </ol>
      </div>
    </div>
  );
}

/** One component: how it is measured, poured and weighed. The last one in stands on top, as in the jar. */
function PartLine({ part, order }: { part: Part; order: number }) {
  return (
    <li className="border-t-2 border-ink py-3">
      <div className="flex items-center gap-2 font-semibold">
        <span aria-hidden className="size-5 shrink-0 border-2 border-ink" style={{ background: part.hex }} />
        <span>
          {order}. {part.name}
        </span>
        <span className="narrow ml-auto text-sm font-normal whitespace-nowrap text-soft">
          {percent(part.share)}
        </span>
      </div>
      {part.colour && (
        <span className="mt-1 inline-block bg-tape px-1.5 py-0.5 text-sm font-semibold">{part.colour}</span>
      )}
      <p className="numeral mt-2 text-xl">
        {part.spoken.words}
        {Math.abs(part.spoken.error) > 0.005 && (
          <span className="narrow text-sm font-normal text-soft">
            {" "}
            {part.spoken.error > 0 ? "+" : "−"}
            {percent(Math.abs(part.spoken.error))}
          </span>
        )}
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-x-5">
        <Why figure={part.poured} name={part.name}>
          <span className="numeral text-2xl">{say(part.poured.value)}</span>
          <span className="text-lg font-semibold">ml</span>
        </Why>
        <Why figure={part.mass} name={`${part.name}, weighed`}>
          <span className="numeral text-2xl font-medium">{say(part.mass.value)}</span>
          <span className="text-lg font-semibold">g</span>
        </Why>
      </div>
    </li>
  );
}
