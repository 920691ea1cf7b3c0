import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef } from "react";
import { useEdits, useKeeping } from "../keep/hooks";
import { newId } from "../parts/say";
import { poured } from "../rules/poured";
import { type Act, answer, api, type BenchReply, type Noted, type PotNow } from "./client";
import { useKeep } from "./edits";

/** A job at the bench, as the server has it. */
export const useBench = (job: string) =>
  useQuery<BenchReply>({
    queryKey: ["bench", job],
    queryFn: () => answer(api.GET("/api/bench/jobs/{job_id}", { params: { path: { job_id: job } } })),
    retry: false,
  });

/** The words mixes are judged by. */
export const useLadder = () =>
  useQuery({
    queryKey: ["ladder"],
    queryFn: () => answer(api.GET("/api/bench/ladder")),
    staleTime: Number.POSITIVE_INFINITY,
  });

interface Given {
  id: string;
  says: string;
  noted: Noted;
}

/** Note what was done: kept here at once, sent in order, made once. `now` is the server's minute. */
export function useNoting(job: string, now: () => number) {
  const send = useKeep(({ id, says, noted }: Given) => ({
    doc: `event/${id}`,
    label: says,
    method: "PUT",
    path: `/api/events/${id}`,
    body: noted,
    read: 0,
  }));
  const put = async (says: string, more: Partial<Noted>): Promise<string> => {
    const id = newId() + newId();
    const minute = now();
    const noted: Noted = {
      job,
      operation: "",
      did: "noted",
      at_min: minute,
      noted_min: minute,
      note: "",
      retracts: "",
      act: null,
      ...more,
    };
    await send.mutateAsync({ id, says, noted }).catch(() => undefined); // what was refused stands on its list
    return id;
  };
  return {
    note: put,
    act: (says: string, act: Act, operation = "") => put(says, { act, operation }),
    error: send.error,
  };
}

/** What was noted here and the server may not have yet, in the order it was noted. */
function useUnsent(job: string): { id: string; noted: Noted }[] {
  const { outbox } = useKeeping();
  const edits = useEdits();
  return useMemo(() => {
    const found = new Map<string, Noted>();
    for (const [doc, kept] of outbox.saved)
      if (doc.startsWith("event/")) found.set(doc.slice(6), kept.body as Noted);
    for (const edit of edits)
      if (edit.doc.startsWith("event/") && edit.says === null)
        found.set(edit.doc.slice(6), edit.body as Noted);
    return [...found]
      .map(([id, noted]) => ({ id, noted }))
      .filter((e) => e.noted.job === job)
      .sort((a, b) => a.noted.noted_min - b.noted.noted_min);
  }, [edits, outbox, job]);
}

type Unsent = ReturnType<typeof useUnsent>;

/** The same, less what the server was seen to know: by its id, or because another device had said it already. */
export function useUnseen(job: string, reply: BenchReply | undefined): Unsent {
  const unsent = useUnsent(job);
  const seen = useRef(new Set<string>());
  return useMemo(() => {
    const known = new Set(reply?.noted);
    const states = new Map(reply?.bench.operations.map((o) => [o.operation.id, o.state]));
    for (const { id, noted } of unsent)
      if (known.has(id) || (noted.act === null && states.get(noted.operation) === noted.did))
        seen.current.add(id);
    return unsent.filter((e) => !seen.current.has(e.id));
  }, [unsent, reply]);
}

type Stuff = NonNullable<PotNow["plan"]>["lines"][number]["stuff"];

/** A pot with what was poured here and the server has not seen: amounts only, what follows of them waits for it. */
export function withUnsent(pot: PotNow, unsent: { id: string; noted: Noted }[]): PotNow {
  const known = new Set(pot.pot.pours.map((p) => p.event));
  const more = new Map<string, number>();
  let stirred = false;
  for (const { id, noted } of unsent) {
    const act = noted.act;
    if (!act || !("pot" in act) || act.pot !== pot.pot.pot) continue;
    if (act.act === "stirred") stirred = true;
    if (act.act !== "poured" || known.has(id)) continue;
    const key = `${act.stuff.component}|${act.stuff.colour}`;
    more.set(key, (more.get(key) ?? 0) + act.g);
  }
  if (!pot.plan || (!more.size && !stirred)) return pot;
  const since = (stuff: Stuff) => more.get(`${stuff.component}|${stuff.colour}`) ?? 0;
  const { lines, times } = poured(pot.plan, since, pot.pot.settled !== null);
  const next = lines.findIndex((l) => l.state === "to pour");
  const state = stirred && pot.pot.state === "pouring" ? "stirred" : pot.pot.state;
  return { ...pot, pot: { ...pot.pot, state }, plan: { ...pot.plan, lines, times, next } };
}
