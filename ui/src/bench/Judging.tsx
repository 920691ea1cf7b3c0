import { useState } from "react";
import { useLadder } from "../api/bench";
import { type Act, type Addition, answer, api, type PotNow, type Rung } from "../api/client";
import { NumberField } from "../parts/fields";
import { Alert } from "../parts/notices";
import { grams, lasts, ml, percent, say } from "../parts/say";
import { lookedAt } from "./toPour";

type Shape = Rung["stick"][number];

/** Outlines of the ladder, in mm. */
function Outline({ shapes, box, hex }: { shapes: Shape[]; box: string; hex: string }) {
  return (
    <svg viewBox={box} aria-hidden className="block h-full w-full" preserveAspectRatio="xMidYMid meet">
      {shapes.map((shape, i) => (
        <polygon
          key={`${shape.of}${String(i)}`}
          points={shape.points.join(" ")}
          fill={shape.of === "wood" ? "var(--color-steel)" : hex}
          stroke="var(--color-ink)"
          strokeWidth="0.9"
        />
      ))}
    </svg>
  );
}

/** A word of the ladder, drawn: stick, peak, streak. */
function Drawn({ rung, hex }: { rung: Rung; hex: string }) {
  return (
    <span className="grid grid-cols-[1fr_1.4fr] gap-1 bg-enamel">
      <span className="row-span-2 h-28">
        <Outline shapes={rung.stick} box="-18 -32 36 106" hex={hex} />
      </span>
      <span className="h-13">
        <Outline shapes={rung.peak} box="-30 -27 60 40" hex={hex} />
      </span>
      <span className="h-13">
        <Outline shapes={rung.streak} box="-30 -10 60 20" hex={hex} />
      </span>
    </span>
  );
}

interface Props {
  pot: PotNow;
  /** Whether a scale stands by: then amounts are in g. */
  weighs: boolean;
  onAct: (says: string, act: Act) => void;
  onAdd: (addition: Addition) => void;
}

/** Is it right? What it looks like against what it should be, and what to add, carefully. */
export function Judging({ pot, weighs, onAct, onAdd }: Props) {
  const ladder = useLadder();
  const [all, setAll] = useState(false);
  const rungs = ladder.data ?? [];
  const at = rungs.findIndex((r) => r.slug === pot.target);
  const target = rungs[at];
  const hex = pot.batch?.hex ?? "#8b8f90";
  const shown = all || at < 0 ? rungs : rungs.slice(Math.max(0, at - 2), at + 3);
  const looked = lookedAt(pot);
  const word = rungs.find((r) => r.slug === looked?.word);
  const look = (slug: string, test: "eye" | "sag" | "flow cup", said = "") =>
    onAct("How it looks", { act: "looked", pot: pot.pot.pot, word: slug, test, said });
  return (
    <div>
      <div className="flex flex-wrap items-end gap-4">
        {target && (
          <figure className="w-56">
            <Drawn rung={target} hex={hex} />
            <figcaption className="narrow text-sm">Drawn from how it flows</figcaption>
          </figure>
        )}
        <div className="min-w-56 grow">
          <p className="narrow text-lg">It should be like</p>
          <h2 className="wide text-2xl leading-tight font-bold">{target?.name ?? "as you like it"}</h2>
          <p className="text-lg">{target?.looks}.</p>
        </div>
      </div>
      {looked && pot.advice ? (
        <AdviceNow pot={pot} word={word?.name ?? ""} weighs={weighs} onAdd={onAdd} />
      ) : (
        <p className="mt-4 text-xl font-bold">Stir it. What does it look like?</p>
      )}
      <ul aria-label="It looks like" className="mt-2 flex flex-wrap pt-0.5 pl-0.5">
        {shown.map((rung) => (
          <li key={rung.slug} className="-mt-0.5 -ml-0.5">
            <button
              type="button"
              className="press flex h-full min-h-[72px] w-36 flex-col items-stretch !p-1.5 text-left"
              aria-pressed={looked?.word === rung.slug}
              onClick={() => look(rung.slug, "eye")}
            >
              <Drawn rung={rung} hex={hex} />
              <span className="font-bold">{rung.name}</span>
              <span className="narrow text-sm font-normal">
                {rung.slug === pot.target ? "as it should be" : rung.looks}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        {!all && at >= 0 && (
          <button type="button" className="press min-h-[56px]" onClick={() => setAll(true)}>
            All the words
          </button>
        )}
        <ShortTests density={pot.density} onWord={look} />
      </div>
    </div>
  );
}

type AdviceProps = Pick<Props, "pot" | "weighs" | "onAdd"> & { word: string };

function AdviceNow({ pot, word, weighs, onAdd }: AdviceProps) {
  const { advice } = pot;
  if (!advice) return null;
  const [first, ...others] = advice.ways;
  const asChosen = advice.way === "as chosen";
  const more = asChosen ? advice.ways : others;
  const said = (way: Addition) =>
    (weighs && grams(way.g)) || pot.ways_said[advice.ways.indexOf(way)]?.words || ml(way.ml);
  return (
    <section aria-label="What to do" className="mt-4 border-l-8 border-ink pl-4">
      <p className="narrow">It looks like {word}.</p>
      <p className="text-xl font-bold">{advice.says}</p>
      {advice.why.map((text) => (
        <p key={text}>{text}</p>
      ))}
      {first && !asChosen && <Way addition={first} said={said(first)} onAdd={onAdd} strong />}
      {more.length > 0 && (
        <details>
          <summary className="inline-flex min-h-11 items-center underline">
            {asChosen ? "Change it all the same" : "Another school"}
          </summary>
          {more.map((way) => (
            <Way key={`${way.stuff.name}${way.ml}`} addition={way} said={said(way)} onAdd={onAdd} />
          ))}
        </details>
      )}
      {advice.wait_min > 0 && (
        <p className="mt-1">Then leave it {lasts(advice.wait_min)} before you look again.</p>
      )}
    </section>
  );
}

function Way({
  addition: a,
  said,
  onAdd,
  strong = false,
}: {
  addition: Addition;
  /** How much that is, in one's own measures. */
  said: string;
  onAdd: Props["onAdd"];
  strong?: boolean;
}) {
  const covers = 1 - a.covers;
  return (
    <div className="mt-2">
      <button
        type="button"
        className={`press min-h-[72px] px-6 text-lg ${strong ? "press-strong" : ""}`}
        onClick={() => onAdd(a)}
      >
        Add {said} of {a.stuff.name.toLowerCase()}
      </button>
      {a.into && (
        <p className="text-lg font-semibold">First into the {a.into}: it does not fit where it is.</p>
      )}
      {a.changes && <p className="font-semibold">{a.changes}</p>}
      <p className="narrow mt-1 text-sm">
        {a.why} It makes {ml(a.volume_ml)} in all; {a.stuff.name.toLowerCase()} goes from{" "}
        {percent(a.share_before)} to {percent(a.share_after)}
        {covers > 0.02 && `, and a coat holds ${percent(covers)} less paint: paler, an estimate`}
        {covers < -0.02 && `, and a coat holds ${percent(-covers)} more paint`}. Altogether it may want about{" "}
        {say(a.whole_g / a.stuff.bulk_density)} ml.
      </p>
      {a.falls_short && <p className="text-sm font-semibold">At the most it becomes {a.falls_short}.</p>}
      {a.crosses && <Alert quiet>{a.crosses}</Alert>}
    </div>
  );
}

/** A flow cup and a streak on an upright scrap: numbers that lead to a word. */
function ShortTests(props: {
  density: number;
  onWord: (slug: string, test: "sag" | "flow cup", said: string) => void;
}) {
  const [open, setOpen] = useState<"" | "flow cup" | "sag">("");
  const [value, setValue] = useState(60);
  const [fault, setFault] = useState("");
  const test = async () => {
    if (!open) return;
    try {
      const body = { test: open, value, density: props.density };
      const found = await answer(api.POST("/api/bench/test", { body }));
      setOpen("");
      props.onWord(found.word, open, open === "sag" ? `${value} mm stayed` : `${value} s`);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const begin = (kind: "flow cup" | "sag") => {
    setValue(kind === "sag" ? 2 : 60);
    setFault("");
    setOpen(kind);
  };
  return (
    <div className="flex flex-wrap items-end gap-2">
      <button
        type="button"
        className="press min-h-[56px]"
        aria-pressed={open === "sag"}
        onClick={() => begin("sag")}
      >
        Streak on a scrap
      </button>
      <button
        type="button"
        className="press min-h-[56px]"
        aria-pressed={open === "flow cup"}
        onClick={() => begin("flow cup")}
      >
        Flow cup
      </button>
      {open && (
        <div className="w-full max-w-md">
          <p className="narrow text-sm">
            {open === "sag"
              ? "Lay streaks of 1, 2, 3 and 5 mm on a scrap and stand it up for a minute. The thickest that stays:"
              : "Fill a cup with a 4 mm hole to the brim, let go, and count until the thread breaks:"}
          </p>
          <div className="flex items-end gap-2">
            <NumberField
              label={open === "sag" ? "It stayed at" : "It took"}
              unit={open === "sag" ? "mm" : "s"}
              value={value}
              min={0.1}
              max={600}
              onChange={setValue}
            />
            <button type="button" className="press min-h-[56px]" onClick={() => void test()}>
              Tell the word
            </button>
          </div>
          {fault && <Alert quiet>{fault}</Alert>}
        </div>
      )}
    </div>
  );
}
