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
    <div className="grid grow grid-cols-[minmax(7rem,15rem)_1fr] gap-x-5">
      <div className="min-h-72 max-h-[560px]">
        <Jar jar={mix.jar} />
      </div>
      <div className="flex min-w-0 flex-col">
        <div>
          <span className="narrow block text-sm font-semibold text-soft">Mix</span>
          <Why figure={mix.volume} name="Mix">
            <span className="numeral text-3xl">{say(mix.volume.value)}</span>
            <span className="text-xl font-semibold">ml</span>
          </Why>
          <p className="narrow text-sm text-soft">
            {say(mix.mass_g)} g in a {mix.jar.vessel}, about as thick as {mix.thickness.word} (an estimate)
          </p>
        </div>
        <ol className="mt-2 flex grow flex-col-reverse justify-end">
          {mix.parts.map((part, i) => (
            <PartLine key={part.component} part={part} order={i + 1} />
          ))}
        </ol>
      </div>
    </div>
  );
}

function PartLine({ part, order }: { part: Part; order: number }) {
  return (
    <li className="border-t-2 border-ink py-3">
      <div className="flex items-center gap-2 font-semibold">
        <span aria-hidden className="size-5 border-2 border-ink" style={{ background: part.hex }} />
        {order}. {part.name}
        {part.colour && <span className="bg-tape px-1.5 py-0.5 text-sm">{part.colour}</span>}
        <span className="narrow ml-auto text-sm font-normal text-soft">{percent(part.share)}</span>
      </div>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <Why figure={part.poured} name={part.name}>
          <span className="numeral text-2xl">{say(part.poured.value)}</span>
          <span className="text-lg font-semibold">ml</span>
        </Why>
        <Why figure={part.mass} name={`${part.name}, weighed`}>
          <span className="numeral text-xl">{say(part.mass.value)}</span>
          <span className="font-semibold">g</span>
        </Why>
      </div>
      <p className="numeral mt-1.5 text-lg font-semibold">
        {part.spoken.words}
        {Math.abs(part.spoken.error) > 0.005 && (
          <span className="narrow text-sm font-normal text-soft">
            {" "}
            ({part.spoken.error > 0 ? "+" : "−"}
            {percent(Math.abs(part.spoken.error))})
          </span>
        )}
      </p>
    </li>
  );
}
