import { keepPreviousData, useQuery } from "@tanstack/react-query";
import {
  type Advice,
  answer,
  api,
  type Frozen,
  type Job,
  type KitAnswer,
  type Mix,
  type PotWant,
  type Procedure,
  type Recipe,
  type Sheet,
  type WhatIf,
} from "./client";

const HELD = Number.POSITIVE_INFINITY;

/** Where a mix was planned: the server measures what it planned itself. */
export type MixSource =
  | { job: Job; batch: string; with_jobs?: string[]; what_if?: WhatIf | null }
  | { recipe: string | Recipe; school: string; want: PotWant };

/** How to measure a mix with the kit in use: arrives beside the live plan, and is remembered. */
export function useMeasured(mix: Mix, source: MixSource | null, kit: string) {
  const amounts = mix.parts.map((p) => [p.component, p.poured.value.toFixed(4)]);
  return useQuery<KitAnswer>({
    queryKey: ["measure", kit, mix.recipe, amounts],
    queryFn: ({ signal }) => {
      if (!source) throw new Error("Nothing was planned.");
      if ("recipe" in source)
        return answer(api.POST("/api/sheet/measure", { body: { ...source, kit, sequence: 0 }, signal }));
      const { job, batch, with_jobs = [], what_if = null } = source;
      const body = { sequence: 0, job, batch, with_jobs, what_if, kit };
      return answer(api.POST("/api/mix-sheet/measure", { body, signal }));
    },
    enabled: source !== null && kit !== "",
    placeholderData: keepPreviousData,
    staleTime: HELD,
  });
}

/** A recipe worked out for an amount; the last answer stays on the screen until the next one is there. */
export function useSheet(recipe: string | Recipe, school: string, want: PotWant, measures: string) {
  return useQuery<Sheet>({
    queryKey: ["sheet", recipe, school, want, measures],
    queryFn: async ({ signal }) => {
      const body = { sequence: 0, recipe, school, want };
      return (await answer(api.POST("/api/sheet", { body, signal }))).sheet;
    },
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** What the advisers say of a zone; the last answer stays until the next one is there. */
export function useAdvice(job: Job, zone: string) {
  return useQuery<Advice>({
    queryKey: ["advice", zone, job],
    queryFn: ({ signal }) => answer(api.POST("/api/finish/advice", { body: { job, zone }, signal })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
}

/** The mix sheet of a job and others with it, as it is and as it would be. */
export function useMixSheet(job: Job, with_jobs: string[], what_if: WhatIf | null) {
  return useQuery({
    queryKey: ["mix-sheet", job, with_jobs, what_if],
    queryFn: ({ signal }) =>
      answer(api.POST("/api/mix-sheet", { body: { sequence: 0, job, with_jobs, what_if }, signal })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
}

/** A batch as it was printed, by the code on its label. */
export function useFrozen(code: string) {
  return useQuery<Frozen>({
    queryKey: ["batch", code],
    queryFn: () => answer(api.GET("/api/batches/{code}", { params: { path: { code } } })),
    staleTime: HELD,
    retry: false,
  });
}

/** The job as steps. */
export function useSteps(job: Job) {
  return useQuery<Procedure>({
    queryKey: ["steps", job],
    queryFn: ({ signal }) => answer(api.POST("/api/finish/steps", { body: job, signal })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
}

/** The finishes for a zone, those that suit it first. */
export function useLibrary(job: Job, zone: string, asked: boolean) {
  return useQuery({
    queryKey: ["library", zone, job],
    queryFn: ({ signal }) => answer(api.POST("/api/finish/library", { body: { job, zone }, signal })),
    enabled: asked,
    placeholderData: keepPreviousData,
  });
}

/** Hours of work and days with waits of each finish, asked when the library is opened. */
export function useEfforts(asked: boolean) {
  return useQuery({
    queryKey: ["efforts"],
    queryFn: () => answer(api.GET("/api/finish/efforts")),
    enabled: asked,
    staleTime: HELD,
  });
}
