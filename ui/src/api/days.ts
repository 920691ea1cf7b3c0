import { keepPreviousData, queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { useEdited, useEdits, useKeeping } from "../keep/hooks";
import { newId } from "../parts/say";
import {
  answer,
  api,
  type DayOperation,
  type DaysChoices,
  type DaysChosen,
  type DaysReply,
  type Noted,
  revisionOf,
} from "./client";
import { useKeep } from "./edits";

/** The air and the clock move by themselves. */
const AGAIN_MS = 120_000;

export type Choices = DaysChoices & { revision: number };

const NOT_YET: Choices[] = [];

/** What asks for what was chosen for the days. */
export const daysChosen = queryOptions<Choices[]>({
  queryKey: ["days-chosen"],
  queryFn: async () => {
    const got = api.GET("/api/days/chosen");
    const data = await answer(got);
    return [{ ...data, revision: revisionOf((await got).response) }];
  },
});

/** What was chosen for the days, with what was changed here and is not saved yet. */
export function useDaysChosen() {
  const asked = useQuery(daysChosen);
  const [data] = useEdited({
    kind: "days",
    list: asked.data ?? NOT_YET,
    slug: () => "chosen",
    revision: (c) => c.revision,
    made: (body, entry) => ({
      ...(entry ?? { profiles: [], jobs: [], revision: 0 }),
      chosen: body as DaysChosen,
    }),
    joins: () => false,
  });
  return { data, error: asked.error, refetch: asked.refetch };
}

/** Choose hours, place, jobs, promises and pins: kept here at once. */
export const usePutDays = () =>
  useKeep(({ chosen, read }: { chosen: DaysChosen; read: number }) => ({
    doc: "days/chosen",
    label: "The days",
    method: "PUT",
    path: "/api/days/chosen",
    body: chosen,
    read,
  }));

export interface Shown {
  reply: DaysReply | undefined;
  /** Whether the best days are being looked for. */
  searching: boolean;
  /** Whether what is shown was found for something that has changed since. */
  old: boolean;
  stop: () => void;
  error: Error | null;
  refetch: () => unknown;
}

/** The days by what is chosen: at once, and the best as soon as they are found. */
export function useDays(chosen: DaysChosen | undefined): Shown {
  const client = useQueryClient();
  const ask = (search: boolean) => ({
    queryKey: ["days", search, chosen],
    queryFn: ({ signal }: { signal: AbortSignal }) => {
      if (!chosen) throw new Error("Nothing is chosen.");
      return answer(api.POST("/api/days", { body: { sequence: 0, chosen, search }, signal }));
    },
    enabled: chosen !== undefined,
    retry: false,
    gcTime: 300_000,
  });
  const atOnce = useQuery<DaysReply>({ ...ask(false), placeholderData: keepPreviousData });
  const best = useQuery<DaysReply>({ ...ask(true), refetchInterval: AGAIN_MS });
  // What was found stays until what is found next is there: what was done meanwhile is shown on it.
  const reply = best.data ?? atOnce.data;
  return {
    reply,
    searching: best.isFetching,
    old: !best.data && atOnce.isPlaceholderData,
    stop: () => void client.cancelQueries({ queryKey: ["days", true] }),
    error: atOnce.error ?? (atOnce.data ? null : best.error),
    refetch: atOnce.refetch,
  };
}

/** The last moment to begin each job that was promised, and what would have to give. */
export function useBackwards(chosen: DaysChosen | undefined, asked: boolean) {
  return useQuery({
    queryKey: ["backwards", chosen],
    queryFn: ({ signal }) => {
      if (!chosen) throw new Error("Nothing is chosen.");
      return answer(
        api.POST("/api/days/backwards", { body: { sequence: 0, chosen, search: false }, signal }),
      );
    },
    enabled: asked && chosen !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export type Did = Noted["did"];

interface Note {
  id: string;
  says: string;
  noted: Noted;
}

const useSend = () =>
  useKeep(({ id, says, noted }: Note) => ({
    doc: `event/${id}`,
    label: `${noted.did[0]?.toUpperCase()}${noted.did.slice(1)}: ${says}`,
    method: "PUT",
    path: `/api/events/${id}`,
    body: noted,
    read: 0,
  }));

/** Note what happened to an operation, so many minutes ago; or take back what was noted by mistake. */
export function useNote() {
  const send = useSend();
  const minute = () => Date.now() / 60_000;
  const note = (one: DayOperation, did: Did, ago = 0, words = "") => {
    const id = newId() + newId();
    const noted_min = minute();
    const at_min = Math.round(noted_min - ago);
    const noted: Noted = {
      job: one.job,
      operation: one.operation.id,
      did,
      at_min,
      noted_min,
      note: words,
      retracts: "",
    };
    send.mutate({ id, says: one.operation.says, noted });
    return id;
  };
  const takeBack = (job: string, operation: string, says: string, event: string) => {
    const noted_min = minute();
    send.mutate({
      id: newId() + newId(),
      says,
      noted: { job, operation, did: "retracted", at_min: noted_min, noted_min, note: "", retracts: event },
    });
  };
  return { note, takeBack, error: send.error };
}

export interface NotedHere {
  did: Did;
  event: string;
}

const key = (job: string, operation: string) => `${job}|${operation}`;

/** How operations stand by what was noted of them, but for what is counted in already. */
function stands(kept: (readonly [string, unknown])[], known: Set<string>): Map<string, NotedHere | null> {
  const bodies = new Map(
    kept
      .filter(([doc]) => doc.startsWith("event/") && !known.has(doc.slice(6)))
      .map(([doc, body]) => [doc.slice(6), body as Noted]),
  );
  // An act at the bench says nothing of how an operation stands.
  const told = [...bodies].filter(([, body]) => !body.act && body.operation);
  return new Map(
    told
      .sort((a, b) => a[1].noted_min - b[1].noted_min)
      .map(([id, body]) => [
        key(body.job, body.operation),
        body.did === "retracted" ? null : { did: body.did, event: id },
      ]),
  );
}

/** What was noted here of each operation and is not in these days yet; null where it was taken back. */
export function useNotedHere(
  known: string[] | undefined,
): (one: DayOperation) => NotedHere | null | undefined {
  const { outbox } = useKeeping();
  const edits = useEdits();
  const noted = useMemo(() => {
    const sent = [...outbox.saved].map(([doc, kept]) => [doc, kept.body] as const);
    const waiting = edits.filter((e) => e.says === null).map((e) => [e.doc, e.body] as const);
    return stands([...sent, ...waiting], new Set(known));
  }, [edits, outbox, known]);
  return (one) => noted.get(key(one.job, one.operation.id));
}
