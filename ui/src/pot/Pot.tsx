import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { KitAnswer, KitOption, Mix, Part } from "../api/client";
import { type MixSource, useMeasured } from "../api/queries";
import { Jar } from "../drawings/Jar";
import { Alert, LABEL } from "../parts/notices";
import { amount, ml, percent, say } from "../parts/say";
import { Why } from "../parts/Why";
import { tally } from "./fillings";

interface PotProps {
  mix: Mix;
  /** Where it was planned; null for one that was printed. */
  source: MixSource | null;
  kit: string;
  rough?: number;
  /** How it was measured when it was printed, instead of with the kit in use. */
  printed?: KitAnswer;
}

/** One pot: how much to mix, part by part, in the kit in use, beside the jar it makes. */
export function Pot({ mix, source, kit, rough = 0, printed }: PotProps) {
  const measured = useMeasured(mix, source, kit);
  const [label, setLabel] = useState("");
  const answer = printed ?? measured.data;
  const larger = label === LARGER ? answer?.larger : null;
  const option = larger ?? answer?.options.find((o) => o.label === label) ?? answer?.options[0];
  const byWeight =
    mix.measured_by === "weight" || (answer?.options.length === 0 && answer.weighed.length > 0);
  const off = Math.min(0.9, mix.volume.spread);
  const powder = mix.naive_ml - mix.volume.value;

  const options = answer && (
    <Options
      answer={answer}
      byWeight={byWeight}
      chosen={larger ? LARGER : (option?.label ?? "")}
      onChoose={setLabel}
      needMl={mix.volume.value}
      mix={mix}
    />
  );

  return (
    <div className="grid grow grid-cols-[7.5rem_minmax(0,1fr)] content-start gap-x-4 sm:grid-cols-[13rem_minmax(0,1fr)] sm:gap-x-6">
      <div className="flex min-w-0 flex-col gap-4">
        <div className="aspect-[302/444] w-full">
          <Jar jar={mix.jar} />
        </div>
        <div className="hidden sm:block">{options}</div>
      </div>
      <div className="flex min-w-0 flex-col">
        <span className={LABEL}>Mix</span>
        <div className="flex flex-wrap items-baseline gap-x-5">
          <Why figure={mix.volume} name="Mix">
            <span className="numeral text-3xl">{amount(mix.volume.value, "ml").value}</span>
            <span className="text-xl font-semibold">{amount(mix.volume.value, "ml").unit}</span>
          </Why>
          <span className="numeral text-xl font-medium">
            {amount(mix.mass_g, "g").value} <span className="text-base">{amount(mix.mass_g, "g").unit}</span>
          </span>
        </div>
        {off > 0 && (
          <p className={`narrow mt-1 text-sm ${rough > 0 ? "font-semibold" : ""}`}>
            {rough > 0 && "Sizes are not all measured. "}It may turn out between{" "}
            {ml(mix.volume.value * (1 - off))} and {ml(mix.volume.value * (1 + off))}.
          </p>
        )}
        <p className="narrow mt-1 text-sm text-soft">
          In a {mix.jar.vessel}.{" "}
          {mix.thickness.thinnest_word === mix.thickness.thickest_word
            ? `About as thick as ${mix.thickness.word}`
            : `Between ${mix.thickness.thinnest_word} and ${mix.thickness.thickest_word}`}{" "}
          (an estimate).
        </p>
        {!mix.jar.fits && (
          <p className="text-sm font-semibold">More than your largest vessel holds: divide it.</p>
        )}
        {powder > mix.naive_ml * 0.01 && (
          <p className="narrow mt-1 border-l-4 border-ink pl-2 text-sm">
            The powder closes up when wet: this makes <strong>{ml(mix.volume.value)}</strong>.
          </p>
        )}
        {mix.thickness.state === "past stiff" && (
          <Alert>Past stiff: it will hardly spread. Less powder, or more liquid.</Alert>
        )}
        <ol className="mt-3 flex flex-col-reverse">
          {mix.parts.map((part, i) => (
            <PartLine
              key={part.component}
              part={part}
              order={i + 1}
              option={option}
              answer={answer}
              byWeight={byWeight}
            />
          ))}
        </ol>
      </div>
      <div className="col-span-2 mt-2 border-t-2 border-ink pt-2 sm:hidden">{options}</div>
    </div>
  );
}

/** Why it cannot be measured out this way, and the smallest batch that can. */
const LARGER = "larger";

/** The smallest batch that can be measured, with its price, and what speaks against so much of it. */
function Larger(props: {
  larger: KitOption;
  says: string[];
  mix: Mix;
  on: boolean;
  onChoose: (label: string) => void;
}) {
  const { larger, says, mix, on, onChoose } = props;
  const makes = mix.volume.value * (1 + larger.surplus);
  return (
    <span className="my-2 block">
      <button type="button" className="press" aria-pressed={on} onClick={() => onChoose(on ? "" : LARGER)}>
        Mix {ml(makes)}, {percentSigned(larger.surplus)} over
      </button>
      {says.map((text) => (
        <span key={text} className="mt-1 block">
          {text}
        </span>
      ))}
    </span>
  );
}

function Cannot(props: {
  says: string;
  by: string;
  smallest: number | null;
  needMl: number;
  children?: ReactNode;
}) {
  return (
    <div role="status" className="said text-sm">
      <strong>{props.says}</strong>{" "}
      {props.smallest && (
        <>
          The smallest batch {props.by} is about{" "}
          <strong className="numeral text-lg">{ml(props.smallest * props.needMl)}</strong>.
        </>
      )}
      {props.children}
    </div>
  );
}

/** The trade-off between waste and work, to choose from. */
function Options(props: {
  byWeight: boolean;
  answer: KitAnswer;
  chosen: string;
  onChoose: (label: string) => void;
  needMl: number;
  mix: Mix;
}) {
  const { answer, byWeight, chosen, onChoose, needMl } = props;
  if (byWeight && answer.weigh_says)
    return (
      <Cannot
        says={answer.weigh_says}
        by="this scale can weigh"
        smallest={answer.smallest_weighed}
        {...{ needMl }}
      />
    );
  if (byWeight)
    return (
      <p className="narrow text-sm text-soft">
        Weighed, each part rounded up to what the scale shows, shares kept.
      </p>
    );
  if (answer.options.length === 0)
    return (
      <Cannot
        says={answer.says}
        by="this kit can measure"
        smallest={answer.larger ? null : answer.smallest_batch}
        {...{ needMl }}
      >
        {answer.larger && (
          <Larger
            larger={answer.larger}
            says={answer.larger_says}
            mix={props.mix}
            on={chosen === LARGER}
            onChoose={onChoose}
          />
        )}
        <Link to="/kit" className="mt-1 inline-flex min-h-11 items-center underline">
          Another kit
        </Link>
      </Cannot>
    );
  return (
    <fieldset>
      <legend className={LABEL}>Measured with your kit</legend>
      <div className="flex flex-col gap-2">
        {answer.options.map((o) => (
          <button
            key={o.label}
            type="button"
            className="press grow text-left text-sm"
            aria-pressed={o.label === chosen}
            onClick={() => onChoose(o.label)}
          >
            <span className="block">{tally(o)}</span>
            <span className="narrow block font-normal">
              {o.surplus < 0.005 ? "nothing over" : `${percentSigned(o.surplus)} over`}, {ratioWords(o.error)}
            </span>
          </button>
        ))}
      </div>
      {!answer.proved && (
        <p className="narrow mt-1 text-sm text-soft">
          There were too many ways to try them all: a better one may exist.
        </p>
      )}
    </fieldset>
  );
}

const percentSigned = (share: number) => `${Math.round(share * 100)} %`;

interface PartLineProps {
  part: Part;
  order: number;
  option: KitOption | undefined;
  answer: KitAnswer | undefined;
  byWeight: boolean;
}

/** One component: how it is measured, poured and weighed. The last one in stands on top, as in the jar. */
function PartLine({ part, order, option, answer, byWeight }: PartLineProps) {
  // Batches that were printed earlier know a part by its name.
  const mine = (x: { component: string }) => x.component === part.component || x.component === part.name;
  const fillings = option?.parts.find(mine)?.fillings;
  const weighed = answer?.weighed.find(mine);
  return (
    <li className="border-t-2 border-ink py-2.5">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 font-semibold">
        <span aria-hidden className="size-5 shrink-0 border-2 border-ink" style={{ background: part.hex }} />
        <span>
          {order}. {part.name}
        </span>
        {part.colour && <span className="bg-tape px-1.5 py-0.5 text-sm font-semibold">{part.colour}</span>}
        <span className="narrow ml-auto text-sm font-normal whitespace-nowrap text-soft">
          {byWeight ? percent(part.share_by_weight) : percent(part.share)}
        </span>
      </div>
      {part.stage && <p className="narrow text-sm text-soft">into the {part.stage} first</p>}
      {byWeight ? (
        weighed && (
          <p className="numeral mt-1.5 text-2xl">
            {say(weighed.g)} <span className="text-lg font-semibold">g</span>{" "}
            <span className="narrow text-sm font-normal text-soft">on the scale</span>
          </p>
        )
      ) : fillings ? (
        <p className="numeral mt-1.5 flex flex-wrap gap-x-2 gap-y-1 text-xl">
          {fillings.map((f, i) => (
            <span key={f.name + String(f.ml)}>
              {i > 0 && "+ "}
              {f.to_mark
                ? `${f.count > 1 ? `${f.count} × ` : ""}${f.name} to ${say(f.ml)} ml`
                : `${f.count} × ${f.name}`}
            </span>
          ))}
        </p>
      ) : (
        <p className="numeral mt-1.5 text-xl">
          {part.spoken.words} <span className="narrow text-sm font-normal text-soft">about</span>
        </p>
      )}
      <div className="mt-1 flex flex-wrap items-baseline gap-x-5">
        <Why figure={part.poured} name={part.name}>
          <span className={`numeral text-2xl ${byWeight ? "font-medium" : ""}`}>
            {amount(part.poured.value, "ml").value}
          </span>
          <span className="text-lg font-semibold">{amount(part.poured.value, "ml").unit}</span>
        </Why>
        <Why figure={part.mass} name={`${part.name}, weighed`}>
          <span className={`numeral text-2xl ${byWeight ? "" : "font-medium"}`}>
            {amount(part.mass.value, "g").value}
          </span>
          <span className="text-lg font-semibold">{amount(part.mass.value, "g").unit}</span>
        </Why>
      </div>
      {part.paints.length > 0 && (
        <ul className="mt-1">
          {part.paints.map((paint) => (
            <li key={paint.name} className="flex items-center gap-2 text-sm">
              <span aria-hidden className="size-4 border border-ink" style={{ background: paint.hex }} />
              <span className="bg-tape px-1">{paint.name}</span>
              <span className="numeral text-base whitespace-nowrap">{ml(paint.ml)}</span>
              <span className="narrow text-soft">{paint.spoken.words}</span>
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}

/** How far a ratio is off, in words. */
function ratioWords(error: number): string {
  if (error <= 0.0005) return "ratio exact";
  return error < 0.02 ? "ratio nearly exact" : `ratio up to ${percent(error)} off`;
}
