import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Link, useParams } from "react-router";
import { useBench, useLadder, useNoting, useUnseen, withUnsent } from "../api/bench";
import type { Addition, BenchOp, Timer } from "../api/client";
import { useWaiting } from "../keep/hooks";
import { Failure } from "../parts/Failure";
import { Alert, Loading } from "../parts/notices";
import { clockTime, newId } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { Told } from "../steps/Step";
import { useAwake } from "./awake";
import { FromJars } from "./FromJars";
import { heardNow, useReading } from "./heard";
import { Judging } from "./Judging";
import { Left } from "./Left";
import { Live } from "./live";
import { List, Rule } from "./Order";
import { Lines, Pouring } from "./Pouring";
import { usePedal } from "./pedal";
import type { Primary } from "./primary";
import { useBell } from "./ringing";
import { ScalePanel } from "./ScalePanel";
import { nextOf, OVER, WORDS, withStates } from "./states";
import { meaningOf, useSteady } from "./steady";
import { Timers, useRings } from "./Timers";
import { toPour } from "./toPour";
import { Waits } from "./Waits";
import { WentPanel } from "./Went";
import { WipeLock } from "./WipeLock";
import { Wrong } from "./Wrong";

/** A key beside the large one. */
const ASIDE =
  "press min-h-[84px] border-0 border-r-2 px-5 max-sm:min-h-[72px] max-sm:flex-1 max-sm:px-2 max-sm:text-sm max-sm:border-b-2";

/** A job at the bench: one operation at a time, to be read from two metres and pressed with an elbow. */
export function BenchView() {
  const { id = "" } = useParams();
  const client = useQueryClient();
  const live = useMemo(
    () => new Live(id, () => void client.invalidateQueries({ queryKey: ["bench", id] })),
    [id, client],
  );
  useEffect(() => {
    live.start();
    return live.stop;
  }, [live]);
  const told = useSyncExternalStore(live.subscribe, live.now);
  const bench = useBench(id);
  const ladder = useLadder();
  usePlace(bench.data ? `${bench.data.bench.name} · At the bench` : "");
  const unsent = useUnseen(id, bench.data);
  const noting = useNoting(id, live.minute);
  const { note, act } = noting;
  const waiting = useWaiting();
  const awake = useAwake();
  const bell = useBell();
  const [looking, setLooking] = useState<string | null>(null);
  const [locked, setLocked] = useState(false);
  const [listed, setListed] = useState(false);
  const [wrong, setWrong] = useState(false);
  const [primary, setPrimary] = useState<Primary | null>(null);
  const [adding, setAdding] = useState<Addition | null>(null);
  const [asIs, setAsIs] = useState<string>("");

  const reply = bench.data;
  const operations = useMemo(() => withStates(reply?.bench.operations ?? [], unsent), [reply, unsent]);
  const timers = reply?.bench.timers ?? [];
  useRings(timers, live.minute, bell.ring);

  const now = useMemo(() => nextOf(operations, reply?.bench.now ?? -1), [reply, operations]);
  const picked = looking === null ? now : operations.findIndex((o) => o.operation.id === looking);
  const at = picked < 0 ? now : picked;
  const op = operations[at];
  const potOf = (name: string) => {
    const found = reply?.pots.find((p) => p.pot.pot === name);
    return found && withUnsent(found, unsent);
  };
  const pot = op?.pot ? potOf(op.pot) : undefined;
  const byScale = pot ? (told.scale?.pots[pot.pot.pot] ?? pot.by_scale) : null;
  const scale = told.scale ?? reply?.scale ?? null;
  const mixing = op?.operation.kind === "mix" && op.state !== "done";
  const cleaning = op?.operation.kind === "clean" && pot !== undefined && !OVER.has(op.state);

  const says = op?.operation.says ?? "";
  const mark = useCallback(
    (did: "begun" | "done" | "skipped" | "gone wrong", one: BenchOp) => {
      setLooking(null);
      setWrong(false);
      void note(`${did[0]?.toUpperCase()}${did.slice(1)}: ${one.operation.says}`, {
        operation: one.operation.id,
        did,
      });
    },
    [note],
  );
  const begin = (one: BenchOp) => {
    mark("begun", one);
    if (one.operation.kind === "mix" && !one.pot)
      void act(
        `A pot begun: ${one.operation.says}`,
        {
          act: "begun",
          pot: newId() + newId(),
          batch: one.operation.batch,
          code: "",
          name: "",
          colour: "",
          hex: "",
          vessel: "",
          recipe: "",
          technique: "",
          target: "",
          zones: [],
          laid_ml: 0,
          lost_ml: 0,
        },
        one.operation.id,
      );
  };

  const todo = pot && mixing ? toPour(pot, adding) : null;
  const bought = (pot?.plan?.lines.length ?? 0) < 2;
  const judging = Boolean(pot && mixing && op?.state === "begun" && !todo && !bought && asIs !== pot.pot.pot);
  const stirs = judging && pot?.pot.state === "pouring";
  const right = pot?.advice?.way === "right" || pot?.advice?.way === "as chosen";

  /** What the large key does now, where no panel says otherwise. */
  const key: Primary | null = (() => {
    if (!op || !reply) return null;
    if (OVER.has(op.state))
      return at === now ? null : { says: "Back to what is next", can: true, run: () => setLooking(null) };
    if (op.state !== "begun")
      return { says: op.state === "planned" ? "Begin" : "Begin it again", can: true, run: () => begin(op) };
    if (primary) return primary;
    if (stirs && pot)
      return {
        says: "It is stirred",
        can: true,
        run: () => void act("Stirred", { act: "stirred", pot: pot.pot.pot }),
      };
    if (judging && !right && pot)
      return { says: "Use it as it is", can: true, run: () => setAsIs(pot.pot.pot) };
    if (mixing && todo) return null;
    return { says: "Done", can: true, run: () => mark("done", op) };
  })();

  const looked = pot?.pot.looks.at(-1);
  const answered = looked !== undefined && looked.at_min >= (pot?.pot.pours.at(-1)?.at_min ?? 0);
  const onIt = todo && byScale?.g != null ? todo.mark - todo.poured - (byScale.g - (pot?.held_g ?? 0)) : null;
  const heard = heardNow({
    rings: bell.flash,
    says,
    state: op && op.state !== "planned" ? (WORDS[op.state] ?? "").toLowerCase() : "",
    todo: todo && op?.state === "begun" ? { name: todo.stuff.name, g: todo.left, near: todo.near } : null,
    toMark: onIt,
    asks:
      scale?.state === "listening" && byScale?.g == null ? byScale?.says || "Put the pot on the scale." : "",
    stirs,
    judging,
    target: ladder.data?.find((r) => r.slug === pot?.target)?.name ?? "",
    advice: (answered && pot?.advice?.says) || "",
  });
  const reading = useReading(heard);
  const steady = useSteady(key ? meaningOf(op?.operation.id ?? "", key.says) : "");
  usePedal(locked, {
    forward: () => (bell.flash ? bell.hush() : key?.can && steady && key.run()),
    back: () => setLooking(operations[Math.max(0, at - 1)]?.operation.id ?? null),
  });

  useEffect(() => {
    document.title = op ? `${says} · Lumso` : "Lumso";
    return () => {
      document.title = "Lumso";
    };
  }, [says, op]);

  if (bench.error && !reply) return <Failure error={bench.error} onRetry={() => void bench.refetch()} />;
  if (!reply) return <Loading>Laying out the bench…</Loading>;
  const { bench: b } = reply;
  const done = operations.filter((o) => OVER.has(o.state)).length;
  const lastLaid = operations
    .filter((o) => o.state === "done" && o.operation.kind === "lay" && o.at_min !== null)
    .sort((x, y) => (y.at_min ?? 0) - (x.at_min ?? 0))[0];
  return (
    <main
      data-flash={bell.flash || undefined}
      className="bench flex h-dvh flex-col bg-enamel"
      onPointerDown={() => bell.flash && bell.hush()}
    >
      {/* The one voice of the bench: there from the start, each thing said once. */}
      <p role="status" className="sr-only">
        {heard}
      </p>
      <header className="flex min-h-[74px] shrink-0 items-stretch border-b-2 border-ink bg-steel">
        <Link
          to={`/jobs/${id}/steps`}
          className="flex min-w-[72px] items-center px-4 font-semibold underline"
        >
          Leave
        </Link>
        <button
          type="button"
          className="flex min-w-0 grow flex-col justify-center px-3 text-left"
          aria-expanded={listed}
          onClick={() => setListed(!listed)}
        >
          <span className="narrow truncate text-sm">
            {b.name}: {done} of {operations.length} done
            {waiting.count > 0 && !told.heard && `. ${waiting.count} kept here`}
          </span>
          <Rule operations={operations} at={at} />
        </button>
        <button
          type="button"
          className="press min-h-[72px] shrink-0 border-y-0 px-4"
          aria-label="Lock to wipe"
          onClick={() => setLocked(true)}
        >
          Lock<span className="max-sm:hidden"> to wipe</span>
        </button>
      </header>
      {!told.heard && (
        <Alert quiet>
          Lumso is not answering. What you note is kept here and sent when it does; the scale is not heard.
        </Alert>
      )}
      {listed && (
        <List
          operations={operations}
          at={at}
          onPick={(o) => {
            setLooking(o.operation.id);
            setListed(false);
          }}
        />
      )}
      {/* It scrolls, so it can be focused: by keyboard alone it is moved with the arrows. */}
      <div
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        className="grid min-h-0 grow content-start gap-6 overflow-y-auto p-4 -outline-offset-4 md:grid-cols-[minmax(0,1fr)_minmax(17rem,23rem)] md:p-6"
      >
        <section aria-label="Now" className="min-w-0">
          {!op ? (
            <h1 className="wide text-2xl font-bold">
              {operations.length
                ? "All of it is done."
                : "Nothing is planned yet: give it a size and a finish first."}
            </h1>
          ) : (
            <>
              <p className="flex flex-wrap items-baseline gap-2">
                {op.operation.zone_name && (
                  <span className="bg-steel px-2 text-lg font-semibold">{op.operation.zone_name}</span>
                )}
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
              {b.first.length > 0 && at === 0 && op.state === "planned" && (
                <p className="said mb-3">
                  <strong>Before anything else.</strong> {b.first.join(" ")}
                </p>
              )}
              <Waits op={op} minute={live.minute} />
              {todo && pot && op.state === "begun" && (
                <FromJars
                  jars={reply.jars.filter((j) => j.operation === op.operation.id)}
                  pot={pot}
                  onTake={(jar) =>
                    void act(
                      `From the jar ${jar.code}`,
                      { act: "from jar", pot: pot.pot.pot, jar: jar.pot, g: jar.take_g },
                      op.operation.id,
                    )
                  }
                />
              )}
              {todo && pot && op.state === "begun" ? (
                <Pouring
                  pot={pot}
                  todo={todo}
                  scale={scale}
                  byScale={byScale}
                  onAct={(words, what) => {
                    if (what.act === "poured") setAdding(null);
                    void act(words, what, op.operation.id);
                  }}
                  onPrimary={setPrimary}
                />
              ) : judging && pot && !stirs ? (
                <Judging
                  pot={pot}
                  weighs={scale?.state === "listening"}
                  onAct={(words, what) => void act(words, what, op.operation.id)}
                  onAdd={setAdding}
                />
              ) : stirs ? (
                <p className="text-xl">All is in. Stir until no streak is left, down to the bottom.</p>
              ) : cleaning && pot ? (
                <Left
                  pot={pot}
                  scale={scale}
                  byScale={byScale}
                  onAct={(words, what) => void act(words, what, op.operation.id)}
                />
              ) : (
                <div className="text-[1.6rem] leading-snug">
                  {op.lay_out.length > 0 && <p className="narrow mb-2">Lay out: {op.lay_out.join(" · ")}.</p>}
                  <Told operation={op.operation} job={id} />
                </div>
              )}
            </>
          )}
        </section>
        <div className="flex min-w-0 flex-col gap-4">
          {pot?.plan && mixing && (
            <Lines
              pot={pot}
              onTakeBack={(event, words) =>
                void note(`Taken back: ${words}`, {
                  operation: "",
                  did: "retracted",
                  retracts: event,
                })
              }
              onSettle={(times) =>
                void act("The size of the pot", { act: "settled", pot: pot.pot.pot, times })
              }
            />
          )}
          {/* Above what comes with the server's answer: it does not move under the finger. */}
          {lastLaid && (
            <WentPanel
              key={lastLaid.operation.id}
              op={lastLaid}
              onAct={(words, what) => void act(words, what, lastLaid.operation.id)}
            />
          )}
          <Timers
            timers={timers}
            minute={live.minute}
            onSaw={(timer: Timer, dry, more) =>
              void act(
                dry ? `Dry: ${timer.says}` : `Not dry yet: ${timer.says}`,
                { act: "saw dry", constraint: timer.id, dry, more_min: more },
                timer.first,
              )
            }
          />
          {scale?.simulated && scale.state === "listening" && <ScalePanel scale={scale} />}
          <div className="mt-auto">
            {reading.can && (
              <button
                type="button"
                className="press mb-2 min-h-[56px]"
                aria-pressed={reading.on}
                onClick={reading.toggle}
              >
                Read to me
              </button>
            )}
            {awake && <p className="narrow text-sm text-soft">{awake}</p>}
            <p className="narrow text-sm text-soft">
              {bell.quiet
                ? "Touch the screen once, then timers ring. "
                : "Timers ring while this page is open. "}
              A sleeping tablet cannot ring.
            </p>
            {noting.error && <Failure error={noting.error} />}
          </div>
        </div>
      </div>
      {wrong && op && (
        <Wrong
          op={op}
          mixing={Boolean(mixing && pot)}
          onLadder={
            judging && pot?.pot.state === "pouring"
              ? () => {
                  setWrong(false);
                  void act("Stirred", { act: "stirred", pot: pot.pot.pot });
                }
              : judging
                ? () => setWrong(false)
                : undefined
          }
          minute={live.minute}
          onWrong={() => mark("gone wrong", op)}
          onClose={() => setWrong(false)}
        />
      )}
      <footer className="flex shrink-0 flex-wrap items-stretch border-t-2 border-ink bg-steel">
        {op && !OVER.has(op.state) && (
          <>
            <button type="button" className={ASIDE} onClick={() => setWrong(!wrong)} aria-expanded={wrong}>
              Something is wrong
            </button>
            <button type="button" className={ASIDE} onClick={() => mark("skipped", op)}>
              Leave it out
            </button>
          </>
        )}
        {op && op.state !== "planned" && op.event && (
          <button
            type="button"
            className={ASIDE}
            onClick={() =>
              void note(`Taken back: ${says}`, {
                operation: op.operation.id,
                did: "retracted",
                retracts: op.event,
              })
            }
          >
            Take back “{WORDS[op.state]}”
          </button>
        )}
        {key && (
          <button
            type="button"
            className="press press-strong min-h-[84px] grow border-0 px-8 text-xl max-sm:basis-full"
            disabled={!key.can}
            aria-disabled={!key.can || !steady}
            onClick={() => steady && key.run()}
          >
            {key.says}
          </button>
        )}
      </footer>
      {locked && <WipeLock onOff={() => setLocked(false)} />}
    </main>
  );
}
