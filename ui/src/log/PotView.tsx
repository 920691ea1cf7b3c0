import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useNoting } from "../api/bench";
import type { LogEvent, PotLife, PotSummary } from "../api/client";
import { useAgain, useChanged, useMakeAgain, usePotLife } from "../api/log";
import { Failure } from "../parts/Failure";
import { NumberField } from "../parts/fields";
import { LABEL, Loading, Term } from "../parts/notices";
import { clockTime, grams, ml, percent } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { PotLine, potState, Shares } from "./PotLine";
import { Recording } from "./Recording";

const minute = () => Date.now() / 60_000;

/** One batch: its whole life, how to make it again, and what changed since another. */
export function PotView() {
  const { pot = "" } = useParams();
  const life = usePotLife(pot);
  usePlace(life.data ? `${life.data.summary.name} · Log` : "");
  if (life.error && !life.data) return <Failure error={life.error} onRetry={() => void life.refetch()} />;
  if (!life.data) return <Loading>Opening the batch…</Loading>;
  const { summary: s, before, after, like } = life.data;
  return (
    <article className="mx-auto grid max-w-6xl gap-x-10 gap-y-6 px-4 py-6 sm:px-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
      <header className="lg:col-span-2">
        <Link to="/log" className="narrow inline-flex min-h-11 items-center underline">
          Log
        </Link>
        <h1 className="wide text-xl leading-tight font-bold">
          {s.name} {s.colour && <span className="bg-tape px-1.5">{s.colour}</span>}
        </h1>
        <p className="narrow">
          <span className="numeral">{s.code}</span>, begun {clockTime(s.begun_min)} for{" "}
          <Link to={`/jobs/${s.job}`} className="underline">
            {s.job_name}
          </Link>
          {s.zones.length > 0 && `: ${s.zones.join(", ")}`}
        </p>
      </header>
      <div className="min-w-0">
        <Shares pot={s} tall />
        <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          {s.parts.map((p) => (
            <Term key={`${p.component}${p.colour}`} name={p.colour ? `${p.name}, ${p.colour}` : p.name}>
              <span className="numeral text-lg">{grams(p.g)}</span>{" "}
              <span className="narrow text-sm">
                {ml(p.ml)}, {percent(p.share)} of the whole
                {p.off_g > p.g * 0.01 && `, known to about ${grams(p.off_g)}`}
              </span>
            </Term>
          ))}
          <Term name="In all">
            <span className="numeral text-lg">{grams(s.mixed_g)}</span>{" "}
            <span className="narrow text-sm">{ml(s.mixed_ml)}</span>
          </Term>
          <Term name="Now">{potState(s)}</Term>
          {s.rate > 0 && (
            <Term name="What the surface took">{s.rate.toFixed(2)} × what is planned without the log</Term>
          )}
        </dl>
        <Entries life={life.data} />
        {before.length > 0 && <Others name="It began from" pots={before} />}
        {after.length > 0 && <Others name="It went on in" pots={after} />}
      </div>
      <aside className="flex min-w-0 flex-col gap-6">
        <Again pot={s} />
        {like.length > 0 && <Changed pot={s} like={like} />}
        {s.state === "kept" && <Jar life={life.data} />}
      </aside>
    </article>
  );
}

function Others({ name, pots }: { name: string; pots: PotSummary[] }) {
  return (
    <section className="mt-6">
      <h2 className="border-b-2 border-ink text-lg font-bold">{name}</h2>
      <ul>
        {pots.map((p) => (
          <PotLine key={p.pot} pot={p} />
        ))}
      </ul>
    </section>
  );
}

/** A word of the ladder as it is said. */
const wordOf = (slug: string): string => slug.replaceAll("-", " ");

/** What an entry says. */
function told(event: LogEvent): string {
  const { act, planned } = event;
  if (!act)
    return `${event.did[0]?.toUpperCase()}${event.did.slice(1)}: ${planned?.says ?? event.operation}${planned?.zone_name ? ` (${planned.zone_name})` : ""}`;
  switch (act.act) {
    case "begun":
      return "Begun";
    case "poured":
      return `${act.rescue ? "Added to set it right" : "Poured"}: ${grams(act.g)} of ${act.stuff.name.toLowerCase()}${act.stuff.colour ? `, ${act.stuff.colour}` : ""}`;
    case "taken out":
      return `Taken out again: ${grams(act.g)}`;
    case "from jar":
      return `From another jar: ${grams(act.g)}`;
    case "stirred":
      return "Stirred";
    case "looked":
      return `Looked like ${wordOf(act.word)}`;
    case "lost water":
      return `Water that left it: ${grams(act.g)}`;
    case "left":
      return act.g > 0 ? `Left: ${grams(act.g)}` : "Used up";
    case "discarded":
      return "Thrown away";
    case "settled":
      return act.times ? "Left as it was planned" : "Made larger, so that the shares hold";
    case "tared":
      return "Put on the scale";
    case "went":
      return [act.verdict || "Done", act.text].filter((t) => t).join(": ");
    case "saw dry":
      return act.dry ? "Dry by then" : "Not dry yet";
    default:
      return "";
  }
}

const HOW: Record<string, string> = {
  scale: "by the scale",
  weighed: "weighed",
  fillings: "by fillings",
  feel: "by feel",
};

function Entries({ life }: { life: PotLife }) {
  return (
    <section className="mt-6">
      <h2 className="border-b-2 border-ink text-lg font-bold">Its life</h2>
      <ol>
        {life.entries
          .filter((e) => e.event.act?.act !== "tared" || life.entries.length < 8)
          .map(({ event, corrected }) => (
            <li
              key={event.id + event.did}
              className="grid grid-cols-[6.5rem_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-line py-1.5"
            >
              <span className="narrow text-sm">{clockTime(event.at_min)}</span>
              <span>
                {told(event)}
                <span className="narrow text-sm text-soft">
                  {event.act?.act === "poured" &&
                    ` ${event.act.said ? `${event.act.said}, ` : ""}${HOW[event.act.by] ?? ""}`}
                  {event.by && `, on ${event.by}`}
                  {corrected && ", corrected"}
                </span>
                {event.act?.act === "went" && event.act.recording && <Recording name={event.act.recording} />}
                {event.act?.act === "went" && (event.act.photographs ?? []).length > 0 && (
                  <span className="mt-1 flex flex-wrap gap-2">
                    {(event.act.photographs ?? []).map((name) => (
                      <img
                        key={name}
                        src={`/api/photographs/${name}`}
                        alt="As it came out"
                        className="h-32 border border-ink"
                      />
                    ))}
                  </span>
                )}
              </span>
              {(event.act?.act === "poured" || (event.act?.act === "left" && event.act.g > 0)) && (
                <Correct event={event} />
              )}
            </li>
          ))}
      </ol>
    </section>
  );
}

/** An amount that was noted wrong: another in its place; what came of it follows. */
function Correct({ event }: { event: LogEvent }) {
  const [open, setOpen] = useState(false);
  const act = event.act;
  const given = act && "g" in act ? act.g : 0;
  const [g, setG] = useState(given);
  const { note, error } = useNoting(event.job, minute);
  if (!act || !("g" in act)) return null;
  if (!open)
    return (
      <button
        type="button"
        className="press"
        onClick={() => setOpen(true)}
        aria-label={`Correct: ${told(event)}`}
      >
        Correct
      </button>
    );
  return (
    <div className="col-span-3 flex flex-wrap items-end gap-3 border-l-4 border-ink py-2 pl-3">
      <div className="w-36">
        <NumberField label="It was" unit="g" value={g} min={0} max={100_000} onChange={setG} />
      </div>
      <button
        type="button"
        className="press press-strong"
        disabled={g === given || (g <= 0 && act.act === "poured")}
        onClick={() => {
          void note(`Corrected: ${told(event)}`, {
            did: "corrected",
            operation: event.operation,
            retracts: event.id,
            at_min: event.at_min,
            act: { ...act, g } as NonNullable<LogEvent["act"]>,
          });
          setOpen(false);
        }}
      >
        Put it right
      </button>
      <button type="button" className="press" onClick={() => setOpen(false)}>
        Leave it
      </button>
      {error && <Failure error={error} />}
    </div>
  );
}

function Again({ pot }: { pot: PotSummary }) {
  const [amount, setAmount] = useState(Math.max(1, Math.round(pot.mixed_ml)));
  const again = useAgain(pot.pot, amount);
  const make = useMakeAgain();
  const go = useNavigate();
  return (
    <section aria-labelledby="again">
      <h2 id="again" className="border-b-2 border-ink text-lg font-bold">
        Make this again
      </h2>
      <div className="mt-2 w-40">
        <NumberField label="How much" unit="ml" value={amount} min={1} max={200_000} onChange={setAmount} />
      </div>
      {again.data && (
        <>
          <ul className="mt-2">
            {again.data.lines.map((l) => (
              <li
                key={`${l.component}${l.colour}`}
                className="flex items-baseline gap-2 border-b border-line py-1.5"
              >
                <span
                  aria-hidden
                  className="size-4 self-center border border-ink"
                  style={{ background: l.hex }}
                />
                <span className="grow">
                  {l.name}
                  {l.colour && <span className="ml-1.5 bg-tape px-1 text-sm">{l.colour}</span>}
                </span>
                <span className="numeral text-lg whitespace-nowrap">{grams(l.g)}</span>
                <span className="narrow w-16 text-right text-sm whitespace-nowrap">{ml(l.ml)}</span>
              </li>
            ))}
          </ul>
          <p className="narrow mt-1 text-sm">
            {again.data.says}
            {again.data.word && ` It looked like ${wordOf(again.data.word)} in the end.`}
          </p>
        </>
      )}
      <button
        type="button"
        className="press press-strong mt-2"
        disabled={make.isPending}
        onClick={() =>
          make.mutate({ pot: pot.pot, ml: amount }, { onSuccess: ({ job }) => void go(`/jobs/${job}/bench`) })
        }
      >
        To the bench with it
      </button>
      {(make.error || again.error) && <Failure error={(make.error ?? again.error) as Error} />}
    </section>
  );
}

function Changed({ pot, like }: { pot: PotSummary; like: PotSummary[] }) {
  const [since, setSince] = useState(like[0]?.pot ?? "");
  const changed = useChanged(pot.pot, since);
  return (
    <section aria-labelledby="changed">
      <h2 id="changed" className="border-b-2 border-ink text-lg font-bold">
        What changed
      </h2>
      <label className={`${LABEL} mt-2`}>
        Since
        <select className="tape mt-0.5 block w-full" value={since} onChange={(e) => setSince(e.target.value)}>
          {like.map((p) => (
            <option key={p.pot} value={p.pot}>
              {[p.code, p.colour, p.job_name, clockTime(p.begun_min)].filter((t) => t).join(", ")}
            </option>
          ))}
        </select>
      </label>
      {changed.data && changed.data.length === 0 && <p className="mt-1">Nothing: they are alike.</p>}
      <ul>
        {(changed.data ?? []).map((d) => (
          <li key={d.what} className="border-b border-line py-1.5">
            <strong>{d.what}</strong>: {d.before} → {d.after}
            {Math.abs(d.by) > 0 && Math.abs(d.by) < 1 && (
              <span className="narrow text-sm">
                {" "}
                ({d.by > 0 ? "+" : "−"}
                {percent(Math.abs(d.by))})
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is left of it: weighed again, or thrown away. */
function Jar({ life }: { life: PotLife }) {
  const { summary: s, jar } = life;
  const { act, error } = useNoting(s.job, minute);
  const [weighs, setWeighs] = useState(Math.round(s.left_g * 10) / 10);
  if (!jar) return null;
  const lost = s.left_g - weighs;
  return (
    <section aria-labelledby="jar">
      <h2 id="jar" className="border-b-2 border-ink text-lg font-bold">
        The jar
      </h2>
      <p className="mt-1">
        <span className="numeral text-xl">{ml(jar.ml)}</span>{" "}
        <span className="narrow text-sm">
          {grams(jar.g)}, {percent(jar.water)} added water
        </span>
      </p>
      {jar.lost_g >= 0.5 && (
        <p className="narrow text-sm">
          About {grams(jar.lost_g)} of water may have left it by now (an estimate).
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <div className="w-36">
          <NumberField
            label="It holds now"
            unit="g"
            value={weighs}
            min={0}
            max={Math.ceil(s.left_g * 10) / 10}
            onChange={setWeighs}
          />
        </div>
        <button
          type="button"
          className="press"
          disabled={lost <= 0.05}
          onClick={() =>
            void act("Water left the jar", { act: "lost water", pot: s.pot, g: lost, by: "weighed" })
          }
        >
          The rest was water
        </button>
        <button
          type="button"
          className="press"
          onClick={() => void act("Thrown away", { act: "discarded", pot: s.pot, why: "" })}
        >
          Throw it away
        </button>
      </div>
      <a href={`/api/log/pots/${s.pot}/label.pdf`} className="press mt-2 inline-flex items-center">
        Label for the jar
      </a>
      <p className="narrow mt-1 text-sm text-soft">{jar.discard}</p>
      {error && <Failure error={error} />}
    </section>
  );
}
