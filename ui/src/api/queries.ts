import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  type Advice,
  answer,
  api,
  type BetterEntry,
  type Catalogue,
  type FileReply,
  type Frozen,
  type Job,
  type JobLine,
  type JobReply,
  type Kit,
  type KitAnswer,
  type Mix,
  type PotWant,
  type Procedure,
  type Recipe,
  type Settings,
  type Sheet,
  type ShelfItem,
  type ShelfLine,
  type Unread,
  type WhatIf,
} from "./client";

const HELD = Number.POSITIVE_INFINITY;

export function useCatalogue() {
  return useQuery<Catalogue>({
    queryKey: ["catalogue"],
    queryFn: () => answer(api.GET("/api/catalogue")),
    staleTime: HELD,
  });
}

export function useJobs() {
  return useQuery<JobLine[]>({ queryKey: ["jobs"], queryFn: () => answer(api.GET("/api/jobs")) });
}

/** What is kept in the workshop and cannot be read. */
export function useUnread() {
  return useQuery<Unread[]>({ queryKey: ["unread"], queryFn: () => answer(api.GET("/api/unread")) });
}

export function useSettings() {
  return useQuery<Settings>({ queryKey: ["settings"], queryFn: () => answer(api.GET("/api/workshop")) });
}

export function useShelf() {
  return useQuery<ShelfLine[]>({ queryKey: ["shelf"], queryFn: () => answer(api.GET("/api/shelf")) });
}

/** What can be known better of every entry of the book, materials aside. */
export function useBetter() {
  return useQuery<BetterEntry[]>({ queryKey: ["better"], queryFn: () => answer(api.GET("/api/better")) });
}

/** Look again at what depends on values known better. */
export function useRefetchBetter() {
  const client = useQueryClient();
  return () => {
    for (const key of ["better", "catalogue", "measure"]) void client.invalidateQueries({ queryKey: [key] });
  };
}

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

/** A change to the workshop, after which everything that follows from it is asked for again. */
function useChange<In, Out>(change: (given: In) => Promise<Out>, shows?: string) {
  const client = useQueryClient();
  return useMutation<Out, Error, In>({
    mutationFn: change,
    scope: { id: shows ?? "workshop" }, // one after the other, in the order they were made
    // What is chosen shows at once, so that the next choice is made from it and not from the one before.
    onMutate: (given) => {
      if (shows) client.setQueryData([shows], given);
    },
    onSuccess: () =>
      Promise.all(
        [
          "unread",
          "settings",
          "catalogue",
          "shelf",
          "measure",
          "sheet",
          "jobs",
          "advice",
          "steps",
          "mix-sheet",
        ].map((key) => client.invalidateQueries({ queryKey: [key] })),
      ),
  });
}

const at = <P>(path: P) => ({ params: { path } });

export const useChoose = () =>
  useChange((chosen: Settings) => answer(api.PUT("/api/workshop", { body: chosen })), "settings");

export const useDeleteUnread = () =>
  useChange(({ kind, slug }: Unread) => answer(api.DELETE("/api/unread/{kind}/{slug}", at({ kind, slug }))));

export const usePutKit = () =>
  useChange((kit: Kit) =>
    answer(api.PUT("/api/kits/{slug}", { ...at({ slug: kit.slug }), body: kit, keepalive: true })),
  );

export const useDeleteKit = () =>
  useChange((slug: string) => answer(api.DELETE("/api/kits/{slug}", at({ slug }))));

export const usePutShelf = () =>
  useChange((item: ShelfItem) =>
    answer(api.PUT("/api/shelf/{slug}", { ...at({ slug: item.slug }), body: item, keepalive: true })),
  );

export const useDeleteShelf = () =>
  useChange((slug: string) => answer(api.DELETE("/api/shelf/{slug}", at({ slug }))));

export const usePutRecipe = () =>
  useChange((recipe: Recipe) =>
    answer(api.PUT("/api/recipes/{slug}", { ...at({ slug: recipe.slug }), body: recipe, keepalive: true })),
  );

export const useDeleteRecipe = () =>
  useChange((slug: string) => answer(api.DELETE("/api/recipes/{slug}", at({ slug }))));

export const useImport = () =>
  useChange(
    (file: {
      name: string;
      text: string;
      on_clash: "ask" | "keep mine" | "take theirs";
    }): Promise<FileReply> => answer(api.POST("/api/import", { body: file })),
  );

export const useBeginJob = () =>
  useChange(
    (start: { recipe?: string; ml?: number }): Promise<JobReply> =>
      answer(api.POST("/api/jobs/start", { body: start })),
  );

export const useTakeJob = () =>
  useChange(
    (file: { name: string; text: string }): Promise<JobReply> =>
      answer(api.POST("/api/jobs/file", { body: file })),
  );

export const usePutAway = () =>
  useChange(({ id, away }: { id: string; away: boolean }) =>
    answer(api.PUT("/api/jobs/{job_id}/away", { ...at({ job_id: id }), body: { away } })),
  );
