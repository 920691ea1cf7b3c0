import { useEffect, useState } from "react";
import type { Act, ByScale, PotNow, ScaleNow } from "../api/client";
import { NumberField } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";
import { grams, ml, say } from "../parts/say";
import { Gauge } from "./Gauge";
import { onScale } from "./onScale";
import type { Primary } from "./primary";
import { toMark } from "./toPour";

type Stuff = NonNullable<PotNow["plan"]>["lines"][number]["stuff"];

/** One thing to pour: by the plan, or to set the mix right. */
export interface ToPour {
  stuff: Stuff;
  /** What is in the pot of it, what is to be, and what is left to pour. */
  poured: number;
  mark: number;
  left: number;
  near: number;
  rescue: boolean;
  /** The fillings of the kit it is measured with, in words; "" where none are known. */
  fillings: string[];
  said: string;
  /** Where its weight for a ml is from: "starting value", "label", "measured"; "" where nobody knows. */
  source: string;
}

interface Props {
  pot: PotNow;
  todo: ToPour;
  scale: ScaleNow | null;
  byScale: ByScale | null;
  /** Whether it is measured without the scale, though one stands there. */
  byHand: boolean;
  onByHand: (byHand: boolean) => void;
  onAct: (says: string, act: Act) => void;
  onPrimary: (primary: Primary | null) => void;
}

const named = (stuff: Stuff) => (stuff.colour ? `${stuff.name}, ${stuff.colour}` : stuff.name);

/** Pour one thing: to the mark on the scale, by the fillings of the kit, or by feel. */
export function Pouring({ pot, todo, scale, byScale, byHand, onByHand, onAct, onPrimary }: Props) {
  const weighs = scale?.state === "listening" && !byHand;
  return (
    <div>
      <h2 className="flex flex-wrap items-baseline gap-x-3">
        <span
          aria-hidden
          className="size-8 self-center border-2 border-ink"
          style={{ background: todo.stuff.hex }}
        />
        <span className="wide text-2xl leading-tight font-bold">{todo.stuff.name}</span>
        {todo.stuff.colour && <span className="bg-tape px-2 text-xl font-semibold">{todo.stuff.colour}</span>}
        {todo.rescue && <span className="narrow text-lg">to set it right</span>}
      </h2>
      {weighs ? (
        <ByWeight {...{ pot, todo, scale, byScale, onAct, onPrimary }} />
      ) : (
        <ByHand {...{ pot, todo, onAct, onPrimary }} />
      )}
      {scale?.state === "listening" && (
        <button type="button" className="press mt-3 min-h-[56px]" onClick={() => onByHand(!byHand)}>
          {byHand ? "With the scale" : "Without the scale"}
        </button>
      )}
      {scale?.state === "gone" && (
        <p className="mt-2 text-sm">
          The scale does not answer. What was poured is kept; measure by hand meanwhile.
        </p>
      )}
    </div>
  );
}

type Mode = Omit<Props, "scale" | "byScale" | "byHand" | "onByHand">;

function ByWeight({
  pot,
  todo,
  scale,
  byScale,
  onAct,
  onPrimary,
}: Mode & { scale: ScaleNow; byScale: ByScale | null }) {
  const reading = scale.reading;
  const shown = byScale?.g ?? null;
  const held = pot.held_g;
  const step = reading?.step_g ?? 0.1;
  const now = shown === null ? null : shown - held;
  const last = pot.pot.pours.at(-1);
  const out = now !== null && now < -2 * step;
  const steady = byScale?.steady ?? false;
  const tells = now !== null && (out || now > 1.5 * step);
  const g = now === null ? 0 : Math.abs(now);
  const takesOut = out && last !== undefined && pot.pot.state === "pouring";

  const tare = () => {
    if (!reading || reading.g === null) return;
    onAct("On the scale", {
      act: "tared",
      pot: pot.pot.pot,
      boot: reading.boot,
      tare: reading.tare,
      unit: reading.unit as "g",
      shown_g: reading.g,
      known_g: held,
    });
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: what is done is made of what these say
  useEffect(() => {
    if (shown === null) {
      const ready = reading !== null && reading.g !== null && reading.steady;
      onPrimary({ says: held > 0 ? "That is the pot" : "The empty pot is on", can: ready, run: tare });
    } else if (takesOut && last)
      onPrimary({
        says: `${grams(g)} taken out`,
        can: steady,
        run: () =>
          onAct(`Taken out: ${named(last.stuff)}`, {
            act: "taken out",
            pot: pot.pot.pot,
            pour: last.event,
            g,
          }),
      });
    else
      onPrimary({
        says: tells && !out ? `Poured: ${grams(g)}` : "Poured",
        can: steady && tells && !out,
        run: () =>
          onAct(`Poured: ${named(todo.stuff)}`, {
            act: "poured",
            pot: pot.pot.pot,
            stuff: todo.stuff,
            g,
            by: "scale",
            said: "",
            rescue: todo.rescue,
          }),
      });
    return () => onPrimary(null);
  }, [
    shown === null,
    Math.round(g * 100),
    steady,
    tells,
    out,
    takesOut,
    todo.stuff,
    todo.rescue,
    held,
    reading?.steady,
  ]);

  if (shown === null || now === null)
    return <NotOnScale says={byScale?.says ?? ""} held={held} reading={reading} />;
  const left = toMark(todo, held, byScale) ?? 0;
  const total = todo.mark - left;
  const over = left < -todo.near;
  return (
    <div className="mt-2 grid grid-cols-[minmax(9rem,14rem)_minmax(0,1fr)] items-stretch gap-4">
      <Gauge mark={todo.mark} poured={total} near={todo.near} hex={todo.stuff.hex} />
      <div className="flex flex-col justify-center" aria-live="off">
        <span className={LABEL}>{over ? "Over the mark by" : "Still to pour"}</span>
        <output
          className="numeral text-[clamp(4rem,11vw,8.5rem)]"
          style={{ textDecoration: over ? "underline 8px" : undefined }}
        >
          {grams(Math.abs(Math.abs(left) < step / 2 ? 0 : left)).replace(" ", " ")}
        </output>
        <p className="numeral mt-3 text-2xl">
          {grams(Math.max(total, 0))} <span className="text-lg">of {grams(todo.mark)}</span>
        </p>
        <p className="narrow mt-1 text-soft">
          {ml(Math.max(total, 0) / todo.stuff.bulk_density)} at {say(todo.stuff.bulk_density)} g/ml
          {todo.source && ` (${todo.source})`}
          {!steady && ". Still settling"}
        </p>
        {out && !takesOut && (
          <p className="mt-1 font-semibold">Taken off: {grams(g)}. Less than was poured is on the scale.</p>
        )}
      </div>
    </div>
  );
}

function ByHand({ pot, todo, onAct, onPrimary }: Mode) {
  const left = todo.left / todo.stuff.bulk_density;
  const [ticked, setTicked] = useState<boolean[]>([]);
  const [how, setHow] = useState<"fillings" | "feel" | "weighed">("fillings");
  const [amount, setAmount] = useState(left);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another thing is poured
  useEffect(() => {
    setTicked([]);
    setAmount(Math.round(left * 10) / 10);
  }, [todo.stuff.component, todo.stuff.colour, Math.round(left)]);
  const asked = todo.fillings.length ? todo.fillings : [todo.said || ml(left)];
  const done = asked.every((_, i) => ticked[i]);
  const measured =
    how === "fillings" ? todo.left : how === "weighed" ? amount : amount * todo.stuff.bulk_density;
  const can = how === "fillings" ? done : amount > 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is done is made of what these say
  useEffect(() => {
    const by = how === "feel" ? "feel" : how === "weighed" ? "weighed" : "fillings";
    onPrimary({
      says: how === "fillings" && !done ? "All in" : "Poured",
      can: can || how === "fillings",
      run: () =>
        onAct(`Poured: ${named(todo.stuff)}`, {
          act: "poured",
          pot: pot.pot.pot,
          stuff: todo.stuff,
          g: measured,
          by,
          said: how === "fillings" ? asked.join(" + ") : "",
          rescue: todo.rescue,
        }),
    });
    return () => onPrimary(null);
  }, [how, done, can, measured, todo.stuff, asked.join("|")]);
  return (
    <div className="mt-3">
      <p className="numeral text-[clamp(3.5rem,9vw,6.5rem)]">{ml(left)}</p>
      <p className="numeral text-xl text-soft">{grams(todo.left)}</p>
      <fieldset className="mt-3 flex flex-wrap gap-0">
        <legend className={LABEL}>How it is measured</legend>
        {(
          [
            ["fillings", "By fillings"],
            ["feel", "About this much"],
            ["weighed", "On another scale"],
          ] as const
        ).map(([slug, name]) => (
          <button
            key={slug}
            type="button"
            className="press min-h-[56px] -ml-0.5"
            aria-pressed={how === slug}
            onClick={() => setHow(slug)}
          >
            {name}
          </button>
        ))}
      </fieldset>
      {how === "fillings" ? (
        <ul className="mt-3 flex flex-wrap gap-2">
          {asked.map((filling, i) => (
            <li key={`${filling}${String(i)}`}>
              <button
                type="button"
                className="press min-h-[72px] min-w-[72px] px-5 text-lg"
                aria-pressed={ticked[i] ?? false}
                onClick={() => setTicked(asked.map((_, k) => (k === i ? !ticked[k] : (ticked[k] ?? false))))}
              >
                {filling}
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <div className="mt-3 max-w-xs">
          <NumberField
            label={how === "feel" ? "About" : "It weighs"}
            unit={how === "feel" ? "ml" : "g"}
            value={amount}
            min={0.05}
            max={100_000}
            onChange={setAmount}
          />
          {how === "feel" && (
            <p className="narrow mt-1 text-sm text-soft">
              By feel an amount is known to a quarter or so; it is kept with that.
            </p>
          )}
        </div>
      )}
    </div>
  );
}

/** What is in the pot and what is still to come, line by line; and what a pour too far made of the rest. */
export function Lines({
  pot,
  onSettle,
  onTakeBack,
}: {
  pot: PotNow;
  onSettle: (times: number | null) => void;
  onTakeBack: (event: string, words: string) => void;
}) {
  const { plan } = pot;
  const last = pot.pot.pours.at(-1);
  if (!plan) return null;
  return (
    <div>
      <ol>
        {plan.lines.map((line, i) => (
          <li
            key={`${line.stuff.component}${line.stuff.colour}`}
            aria-current={i === plan.next ? "step" : undefined}
            className={`flex items-baseline gap-2 border-b border-line py-1.5 ${i === plan.next ? "border-l-8 border-l-ink pl-2" : ""}`}
          >
            <span
              aria-hidden
              className="size-4 self-center border border-ink"
              style={{ background: line.stuff.hex }}
            />
            <span className="grow">
              {line.stuff.name}
              {line.stuff.colour && <span className="ml-1.5 bg-tape px-1 text-sm">{line.stuff.colour}</span>}
            </span>
            <span className="numeral whitespace-nowrap">{grams(line.poured_g)}</span>
            <span className="narrow whitespace-nowrap text-sm text-soft">of {grams(line.mark_g)}</span>
            <span className="narrow w-16 text-right text-sm font-semibold">
              {line.state === "over" ? "over" : line.state === "to pour" ? "" : "in"}
            </span>
          </li>
        ))}
      </ol>
      <p className="narrow mt-1 text-sm">
        {grams(plan.total_g)}, {ml(plan.total_ml)} in all
        {Math.abs(plan.total_ml - plan.planned_ml) > plan.planned_ml * 0.02 &&
          ` (planned ${ml(plan.planned_ml)})`}
        , in a {plan.vessel}
        {!plan.fits && ": more than your largest vessel holds"}.
      </p>
      {last && last.out_g === 0 && (
        <button
          type="button"
          className="press mt-2 min-h-[56px]"
          onClick={() => onTakeBack(last.event, `${grams(last.g)} of ${named(last.stuff)}`)}
        >
          Not so: note the last {grams(last.g)} anew
        </button>
      )}
      {(plan.says.length > 0 || plan.cannot.length > 0) && (
        <div role="status" className="said mt-2">
          {plan.says.map((text) => (
            <p key={text} className="font-semibold">
              {text}
            </p>
          ))}
          {plan.cannot.map((text) => (
            <Alert key={text} quiet>
              {text}
            </Alert>
          ))}
          {plan.out_g > 0 && <p className="mt-1">Or take {grams(plan.out_g)} of the last pour out again.</p>}
          {plan.too_far && (
            <div className="mt-2 flex flex-wrap gap-2">
              <button
                type="button"
                className="press min-h-[56px]"
                aria-pressed={plan.grown}
                onClick={() => onSettle(null)}
              >
                Make {ml(plan.planned_ml * plan.wanted_times)} of it
              </button>
              <button
                type="button"
                className="press min-h-[56px]"
                aria-pressed={!plan.grown}
                onClick={() => onSettle(1)}
              >
                Leave it as it is
              </button>
            </div>
          )}
        </div>
      )}
    </div>
  );
}

/** Where the scale does not show what is in the pot: what it asks for. */
function NotOnScale(props: { says: string; held: number; reading: ScaleNow["reading"] }) {
  const { says, held, reading } = props;
  return (
    <div className="mt-4 border-l-8 border-ink pl-4">
      <p className="text-xl font-bold">{says || "Put the pot on the scale."}</p>
      {held > 0 && <p className="mt-1">It should hold {grams(held)} of mix beside its own weight.</p>}
      {reading && <p className="numeral mt-2 text-2xl first-letter:uppercase">{onScale(reading)}</p>}
    </div>
  );
}
