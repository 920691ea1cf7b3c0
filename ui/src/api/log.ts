import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useChangeOf } from "./changes";
import { answer, api, type LearnedChoice, revisionOf } from "./client";
import { useKeep } from "./edits";

const MINUTES_A_DAY = 1440;

/** Minutes since 1970 of the beginning of a day such as 2026-11-27, in the reader’s zone; null for none. */
const begins = (day: string): number | null => {
  const at = day ? new Date(`${day}T00:00:00`).getTime() : Number.NaN;
  return Number.isFinite(at) ? at / 60_000 : null;
};

/** Batches whose words hold every word of a text, between two days. */
export const useLog = (text: string, from: string, until: string, limit: number) =>
  useQuery({
    queryKey: ["log", "found", text, from, until, limit],
    queryFn: ({ signal }) => {
      const last = begins(until);
      const query = {
        text,
        limit,
        from_min: begins(from) ?? 0,
        until_min: last === null ? 1e12 : last + MINUTES_A_DAY,
      };
      return answer(api.GET("/api/log", { params: { query }, signal }));
    },
    placeholderData: keepPreviousData,
  });

export const usePotLife = (pot: string) =>
  useQuery({
    queryKey: ["log", "life", pot],
    queryFn: () => answer(api.GET("/api/log/pots/{pot}", { params: { path: { pot } } })),
    retry: false,
  });

export const useAgain = (pot: string, ml: number) =>
  useQuery({
    queryKey: ["log", "again", pot, ml],
    queryFn: ({ signal }) =>
      answer(api.GET("/api/log/pots/{pot}/again", { params: { path: { pot }, query: { ml } }, signal })),
    placeholderData: keepPreviousData,
    enabled: ml > 0,
  });

export const useChanged = (pot: string, since: string) =>
  useQuery({
    queryKey: ["log", "changed", pot, since],
    queryFn: () =>
      answer(api.GET("/api/log/pots/{pot}/changed", { params: { path: { pot }, query: { since } } })),
    enabled: since !== "",
  });

export const useJars = () =>
  useQuery({ queryKey: ["log", "jars"], queryFn: () => answer(api.GET("/api/log/jars")) });

export const useLearned = () =>
  useQuery({
    queryKey: ["log", "learned"],
    queryFn: async () => {
      const got = api.GET("/api/log/learned");
      const data = await answer(got);
      return { ...data, revision: revisionOf((await got).response) };
    },
  });

/** Switch what was learnt off or on, or confirm what was doubted. */
export const useLearn = () =>
  useKeep(({ revision, ...body }: LearnedChoice & { revision: number }) => ({
    doc: "setting/learning",
    label: "What was learnt",
    method: "PUT",
    path: "/api/log/learned",
    body,
    read: revision,
  }));

/** A pot of its own to be mixed as a batch really was. */
export const useMakeAgain = () =>
  useChangeOf(({ pot, ml }: { pot: string; ml: number }) =>
    answer(api.POST("/api/log/pots/{pot}/again", { params: { path: { pot } }, body: { ml } })),
  );
