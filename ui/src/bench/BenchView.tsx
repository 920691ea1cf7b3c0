import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { useParams } from "react-router";
import { useBench, useLadder, useUnseen } from "../api/bench";
import type { Addition } from "../api/client";
import { Live } from "../api/live";
import { useWaiting } from "../keep/hooks";
import { Failure } from "../parts/Failure";
import { Alert, Loading } from "../parts/notices";
import { usePlace } from "../parts/usePlace";
import { useActs } from "./acts";
import { useAwake } from "./awake";
import { Beside } from "./Beside";
import { Doing } from "./Doing";
import { Foot } from "./Foot";
import { Against, Head } from "./Head";
import { heardNow, heardOf, useReading } from "./heard";
import { atHand, keyOf } from "./now";
import { List } from "./Order";
import { usePedal } from "./pedal";
import type { Primary } from "./primary";
import { useBell } from "./ringing";
import { lastLaid, withStates } from "./states";
import { meaningOf, useSteady } from "./steady";
import { useRings } from "./Timers";
import { WipeLock } from "./WipeLock";
import { Wrong } from "./Wrong";

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
  const [byHand, setByHand] = useState(false);
  const onMark = useCallback(() => {
    setLooking(null);
    setWrong(false);
  }, []);
  const acts = useActs(id, live.minute, onMark);

  const reply = bench.data;
  const operations = useMemo(() => withStates(reply?.bench.operations ?? [], unsent), [reply, unsent]);
  const timers = reply?.bench.timers ?? [];
  useRings(timers, live.minute, bell.ring);

  const hand = atHand({ reply, operations, looking, unsent, shown: told.scale, byHand, adding, asIs });
  const { at, op, pot, scale, mixing, judging, stirs } = hand;
  const stir = () => pot && acts.act("Stirred", { act: "stirred", pot: pot.pot.pot });
  const key = reply
    ? keyOf(hand, { acts, primary, stir, asItIs: setAsIs, back: () => setLooking(null) })
    : null;
  const rung = ladder.data?.find((r) => r.slug === pot?.target);
  const heard = heardNow(heardOf(hand, bell.flash, rung?.name ?? ""));
  const toTheLadder = () => {
    setWrong(false);
    if (stirs) stir();
  };
  const reading = useReading(heard);
  const says = op?.operation.says ?? "";
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
      <Head
        job={id}
        name={reply.bench.name}
        operations={operations}
        at={at}
        kept={told.heard ? 0 : waiting.count}
        listed={listed}
        onList={() => setListed(!listed)}
        onLock={() => setLocked(true)}
      />
      {!told.heard && (
        <Alert quiet>
          Lumso is not answering. What you note is kept here and sent when it does; the scale is not heard.
        </Alert>
      )}
      <Against says={reply.standing.says} />
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
          {op ? (
            <Doing
              {...{ ...hand, job: id, op, reply, byHand, acts }}
              first={at === 0}
              onByHand={setByHand}
              minute={live.minute}
              onAdd={setAdding}
              onPrimary={setPrimary}
            />
          ) : (
            <NothingToDo all={operations.length > 0} />
          )}
        </section>
        <Beside
          mixed={mixing ? pot : undefined}
          laid={lastLaid(operations)}
          timers={timers}
          minute={live.minute}
          scale={scale}
          acts={acts}
          awake={awake}
          quiet={bell.quiet}
          reading={reading}
        />
      </div>
      {wrong && op && (
        <Wrong
          op={op}
          job={id}
          mixing={Boolean(mixing && pot)}
          onLadder={judging ? toTheLadder : undefined}
          minute={live.minute}
          onWrong={() => acts.mark("gone wrong", op)}
          onClose={() => setWrong(false)}
        />
      )}
      <Foot
        op={op}
        primary={key}
        steady={steady}
        wrong={wrong}
        onWrong={() => setWrong(!wrong)}
        onLeaveOut={(one) => acts.mark("skipped", one)}
        onTakeBack={acts.takeBack}
      />
      {locked && <WipeLock onOff={() => setLocked(false)} />}
    </main>
  );
}

/** Where nothing is to be done: all of it is done, or nothing is planned. */
function NothingToDo({ all }: { all: boolean }) {
  const says = all ? "All of it is done." : "Nothing is planned yet: give it a size and a finish first.";
  return <h1 className="wide text-2xl font-bold">{says}</h1>;
}
