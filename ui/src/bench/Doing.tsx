import type { Addition, BenchOp, BenchReply, ByScale, PotNow, ScaleNow } from "../api/client";
import { clockTime } from "../parts/say";
import { Told } from "../steps/Step";
import type { Acts } from "./acts";
import { FromJars } from "./FromJars";
import { Judging } from "./Judging";
import { Left } from "./Left";
import { Pouring, type ToPour } from "./Pouring";
import type { Primary } from "./primary";
import { WORDS } from "./states";
import { Waits } from "./Waits";

interface DoingProps {
  job: string;
  op: BenchOp;
  reply: BenchReply;
  /** Whether it is the first of all. */
  first: boolean;
  pot: PotNow | undefined;
  todo: ToPour | null;
  judging: boolean;
  stirs: boolean;
  cleaning: boolean;
  scale: ScaleNow | null;
  byScale: ByScale | null;
  byHand: boolean;
  onByHand: (byHand: boolean) => void;
  minute: () => number;
  acts: Acts;
  onAdd: (addition: Addition | null) => void;
  onPrimary: (primary: Primary | null) => void;
}

/** What is done now: poured, judged, weighed back, or told. */
export function Doing(props: DoingProps) {
  const { op, reply, pot, todo, judging, stirs, acts } = props;
  const { zone_name, says, id } = op.operation;
  const note: Parameters<typeof Left>[0]["onAct"] = (words, what) => acts.act(words, what, id);
  const pours = todo && op.state === "begun";
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-2">
        {zone_name && <span className="bg-steel px-2 text-lg font-semibold">{zone_name}</span>}
        {op.state !== "planned" && (
          <span className="text-lg font-semibold">
            {WORDS[op.state]}
            {op.at_min !== null && ` ${clockTime(op.at_min)}`}
            {op.by && <span className="narrow font-normal">, on {op.by}</span>}
          </span>
        )}
      </p>
      <h1
        className={`wide mb-3 leading-tight font-bold ${todo || (judging && !stirs) ? "text-lg" : "text-[clamp(1.6rem,3.4vw,2.6rem)]"}`}
      >
        {says}
      </h1>
      {reply.bench.first.length > 0 && props.first && op.state === "planned" && (
        <p className="said mb-3">
          <strong>Before anything else.</strong> {reply.bench.first.join(" ")}
        </p>
      )}
      <Waits op={op} minute={props.minute} />
      {pours && pot && (
        <FromJars
          jars={reply.jars.filter((j) => j.operation === id)}
          pot={pot}
          onTake={(jar) =>
            note(`From the jar ${jar.code}`, {
              act: "from jar",
              pot: pot.pot.pot,
              jar: jar.pot,
              g: jar.take_g,
            })
          }
        />
      )}
      <Work {...props} note={note} />
    </>
  );
}

/** What the hands do now: pour, judge, stir, weigh back; or what is told of it. */
function Work({ note, ...props }: DoingProps & { note: Parameters<typeof Left>[0]["onAct"] }) {
  const { op, pot, todo, judging, stirs } = props;
  if (todo && op.state === "begun" && pot)
    return (
      <Pouring
        pot={pot}
        todo={todo}
        scale={props.scale}
        byScale={props.byScale}
        byHand={props.byHand}
        onByHand={props.onByHand}
        onAct={(words, what) => {
          if (what.act === "poured") props.onAdd(null);
          note(words, what);
        }}
        onPrimary={props.onPrimary}
      />
    );
  if (judging && pot && !stirs)
    return (
      <Judging
        pot={pot}
        weighs={props.scale?.state === "listening" && !props.byHand}
        onAct={note}
        onAdd={props.onAdd}
      />
    );
  if (stirs) return <p className="text-xl">All is in. Stir until no streak is left, down to the bottom.</p>;
  if (props.cleaning && pot)
    return <Left pot={pot} scale={props.scale} byScale={props.byScale} onAct={note} />;
  return (
    <div className="text-[1.6rem] leading-snug">
      {op.lay_out.length > 0 && <p className="narrow mb-2">Lay out: {op.lay_out.join(" · ")}.</p>}
      <Told operation={op.operation} job={props.job} />
    </div>
  );
}
