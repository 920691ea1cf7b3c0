import { Link } from "react-router";
import type { JarLine } from "../api/client";
import { useJars } from "../api/log";
import { Failure } from "../parts/Failure";
import { Alert, Loading } from "../parts/notices";
import { clockTime, grams, ml, percent, say } from "../parts/say";
import { Shares } from "./PotLine";

const CLOSED = { lid: "under a lid", wrapped: "wrapped", open: "open" } as const;

/** What is left, soonest to spoil first, and what it is good for. */
export function Jars() {
  const jars = useJars();
  if (jars.error && !jars.data) return <Failure error={jars.error} onRetry={() => void jars.refetch()} />;
  if (!jars.data) return <Loading>Looking at the jars…</Loading>;
  const ordered = [...jars.data].sort(
    (a, b) =>
      (a.jar.keeps_until_min ?? Number.POSITIVE_INFINITY) -
      (b.jar.keeps_until_min ?? Number.POSITIVE_INFINITY),
  );
  if (!ordered.length)
    return (
      <p className="mt-6 max-w-xl">
        No jars. What is left in a pot is asked for at the bench when the tools are cleaned; it stands here
        until it is used up or thrown away.
      </p>
    );
  return (
    <ul aria-label="Jars" className="mt-4 border-t-2 border-ink">
      {ordered.map((line) => (
        <Jar key={line.summary.pot} line={line} />
      ))}
    </ul>
  );
}

function Jar({ line: { summary: s, jar, uses } }: { line: JarLine }) {
  return (
    <li className="grid gap-x-6 gap-y-2 border-b border-ink py-4 md:grid-cols-[15rem_minmax(0,1fr)]">
      <div>
        <Link to={`/log/pots/${s.pot}`} className="block font-bold underline">
          {s.name}
        </Link>
        <p>
          {s.colour && <span className="bg-tape px-1 text-sm font-semibold">{s.colour}</span>}{" "}
          <span className="numeral">{s.code}</span>
        </p>
        <div className="mt-1 w-40">
          <Shares pot={s} />
        </div>
        <p className="numeral mt-2 text-xl">{ml(jar.ml)}</p>
        <p className="narrow text-sm">
          {grams(jar.g)}, {percent(Math.round(jar.water * 100) / 100)} added water, {CLOSED[s.closed]}
          {s.place && `, ${s.place}`}
        </p>
        <p className="narrow text-sm">
          {jar.keeps_until_min === null
            ? "How long it keeps: read the label."
            : `${jar.past ? "Kept until" : "Keeps until"} ${clockTime(jar.keeps_until_min)}`}
          {jar.lost_g >= 0.5 && `. About ${say(jar.lost_g)} g of water may have left it (an estimate).`}
        </p>
        {jar.says && <Alert quiet>{jar.says}</Alert>}
      </div>
      <div>
        {uses.length > 0 ? (
          <>
            <h2 className="text-lg font-bold">What it is good for</h2>
            <ul>
              {uses.map((use) => (
                <li
                  key={`${use.job}${use.zone}${use.layer}${use.says}`}
                  className="border-b border-line py-1.5"
                >
                  <Link to={`/jobs/${use.job}/mix`} className="underline">
                    {use.job_name}
                  </Link>
                  : {use.says}.{" "}
                  <span className="narrow text-sm">
                    {use.how === "as it is" && `As it is, ${percent(use.covers)} of what it takes.`}
                    {use.how === "with water" &&
                      `With ${ml(use.add_water_ml)} more water, ${percent(use.covers)} of what it takes.`}
                    {use.how === "as the start of it" &&
                      `As the start of it: ${percent(use.tint)} of its paint would be this one, and show.`}
                  </span>
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p className="text-soft">Nothing that is planned wants it.</p>
        )}
        <p className="narrow mt-2 text-sm text-soft">To throw it away: {jar.discard}</p>
      </div>
    </li>
  );
}
