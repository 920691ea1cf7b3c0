import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useMemo, useRef } from "react";
import { useEdited, useKeeping } from "../keep/hooks";
import type { Outbox, Outcome } from "../keep/outbox";
import { newId } from "../parts/say";
import {
  type Advice,
  type Aside,
  answer,
  api,
  type BetterEntry,
  type Catalogue,
  type FileReply,
  type Frozen,
  type Job,
  type JobReply,
  type Jobs,
  type Kit,
  type KitAnswer,
  type Mix,
  NoAnswer,
  type PotWant,
  type Problem,
  type Procedure,
  type Recipe,
  Refused,
  type Restored,
  revisionOf,
  type Settings,
  type Sheet,
  type Shelf,
  type ShelfItem,
  type ShelfLine,
  type Unread,
  type WhatIf,
} from "./client";

const HELD = Number.POSITIVE_INFINITY;

/** What was asked for: there, or not yet. */
type Asked<T> = { error: Error | null; refetch: () => unknown } & ({ data: T } | { data: undefined });

const NO_KITS: Kit[] = [];
const NO_RECIPES: Recipe[] = [];
const NO_LINES: ShelfLine[] = [];

/** Everything there is to choose from, with what was changed here and is not saved yet. */
export function useCatalogue() {
  const asked = useQuery<Catalogue>({
    queryKey: ["catalogue"],
    queryFn: () => answer(api.GET("/api/catalogue")),
    staleTime: HELD,
  });
  const kits = useEdited({
    kind: "kit",
    list: asked.data?.kits ?? NO_KITS,
    slug: (k) => k.slug,
    revision: (k) => asked.data?.own_kits[k.slug] ?? 0,
    made: (body) => body as Kit,
  });
  const recipes = useEdited({
    kind: "recipe",
    list: asked.data?.recipes ?? NO_RECIPES,
    slug: (r) => r.slug,
    revision: (r) => asked.data?.own_recipes[r.slug] ?? 0,
    made: (body) => body as Recipe,
  });
  const data = useMemo(() => asked.data && { ...asked.data, kits, recipes }, [asked.data, kits, recipes]);
  return { data, error: asked.error, refetch: asked.refetch } as Asked<Catalogue>;
}

export interface JobsAsked {
  search?: string;
  away?: boolean;
}

/** The list of jobs, a page after the other. */
export function useJobs({ search = "", away = false }: JobsAsked = {}) {
  return useInfiniteQuery<Jobs, Error, Jobs[], unknown[], string>({
    queryKey: ["jobs", search, away],
    queryFn: ({ pageParam, signal }) =>
      answer(api.GET("/api/jobs", { params: { query: { search, away, after: pageParam } }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.more || null,
    select: (held) => held.pages,
    placeholderData: keepPreviousData,
  });
}

/** What is kept in the workshop and cannot be read. */
export function useUnread() {
  return useQuery<Unread[]>({ queryKey: ["unread"], queryFn: () => answer(api.GET("/api/unread")) });
}

/** What was chosen for the workshop, and the revision of it. */
export type Chosen = Settings & { revision: number };

const NOT_YET: Chosen[] = [];
const SETTINGS = "setting/workshop";

export function useSettings() {
  const asked = useQuery<Chosen[]>({
    queryKey: ["settings"],
    queryFn: async () => {
      const got = api.GET("/api/workshop");
      const data = await answer(got);
      return [{ ...data, revision: revisionOf((await got).response) }];
    },
  });
  const [data] = useEdited({
    kind: "setting",
    list: asked.data ?? NOT_YET,
    slug: () => "workshop",
    revision: (s) => s.revision,
    made: (body, entry) => ({ ...(body as Settings), revision: entry?.revision ?? 0 }),
  });
  return { data, error: asked.error, refetch: asked.refetch } as Asked<Chosen>;
}

/** What is on the shelf, or what is known and is not, a page after the other; with what was changed here. */
export function useShelf(on: boolean, search: string) {
  const asked = useInfiniteQuery<Shelf, Error, Shelf[], unknown[], string>({
    queryKey: ["shelf", on, search],
    queryFn: ({ pageParam, signal }) =>
      answer(api.GET("/api/shelf", { params: { query: { on, search, after: pageParam } }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.more || null,
    select: (held) => held.pages,
    placeholderData: keepPreviousData,
  });
  const held = useMemo(() => asked.data?.flatMap((page) => page.lines) ?? NO_LINES, [asked.data]);
  const lines = useEdited({
    kind: "shelf",
    list: held,
    slug: (line) => line.material.slug,
    revision: (line) => line.revision,
    made: (body, line) => shelfLine(body as ShelfItem, line),
    // A new material of one's own is on the shelf at once; one of the book moves there when the server says so.
    joins: (body) => on && !search && Boolean((body as ShelfItem).own),
  });
  return { ...asked, lines, count: asked.data?.[0]?.count ?? 0 };
}

/** A line of the shelf as it was edited: what only the server works out of it is as it was. */
function shelfLine(item: ShelfItem, line: ShelfLine | undefined): ShelfLine {
  if (line) return { ...line, item, on_shelf: true };
  return { material: item.own as ShelfLine["material"], item, on_shelf: true, values: [], revision: 0 };
}

/** What can be known better of every entry of the book, materials aside. */
export function useBetter() {
  return useQuery<BetterEntry[]>({ queryKey: ["better"], queryFn: () => answer(api.GET("/api/better")) });
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

/** How long typing rests before what was typed is sent; kept it is at once. */
const TYPING_MS = 400;

type Put = Parameters<Outbox["put"]>[0];

/** An edit of a document of the workshop: kept here at once, and saved as soon as the server answers. */
function useKeep<In extends object>(edit: (given: In) => Put) {
  const { outbox } = useKeeping();
  return useMutation<Outcome, Error, In>({
    mutationFn: (given) => outbox.put(edit(given), "typed" in given ? TYPING_MS : 0),
    networkMode: "always",
  });
}

/** A change to the workshop that needs an answer, after which all that follows from it is asked for again. */
function useChange<In, Out>(change: (given: In) => Promise<Out>) {
  const client = useQueryClient();
  return useMutation<Out, Error, In>({
    mutationFn: change,
    scope: { id: "workshop" }, // one after the other, in the order they were made
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
          "aside",
          "backups",
          "workshop-mode",
        ].map((key) => client.invalidateQueries({ queryKey: [key] })),
      ),
  });
}

const at = <P>(path: P) => ({ params: { path } });

/** A change of what was chosen for the workshop, made to what is on the screen. */
export const useChoose = () =>
  useKeep(({ revision, ...body }: Chosen) => ({
    doc: SETTINGS,
    label: "What is in use",
    method: "PUT",
    path: "/api/workshop",
    body,
    read: revision,
  }));

export const useDeleteUnread = () =>
  useChange(({ kind, slug }: Unread) => answer(api.DELETE("/api/unread/{kind}/{slug}", at({ kind, slug }))));

const path = (kind: string, slug: string) => `/api/${kind}/${encodeURIComponent(slug)}`;

/** An entry of one's own as it is now, and the revision it was made from. */
export interface Edited<T> {
  entry: T;
  read: number;
  /** Typing may go on. */
  typed?: true;
}

const putting = (kind: string, at: string, slug: string, name: string, body: unknown, read: number): Put => ({
  doc: `${kind}/${slug}`,
  label: name,
  method: body === null ? "DELETE" : "PUT",
  path: path(at, slug),
  body,
  read,
});

export const usePutKit = () =>
  useKeep(({ entry, read }: Edited<Kit>) =>
    putting("kit", "kits", entry.slug, `Kit: ${entry.name}`, entry, read),
  );

export const useDeleteKit = () =>
  useKeep(({ entry, read }: Edited<Kit>) =>
    putting("kit", "kits", entry.slug, `Kit: ${entry.name}`, null, read),
  );

/** A value of the book that is known better: null puts the book's own back. */
interface Known {
  entry: BetterEntry;
  field: string;
  name: string;
  body: { value: number; source: "label" | "measured"; on: string } | null;
}

export const betterDoc = (entry: BetterEntry, field: string) => `better/${entry.kind}/${entry.slug}/${field}`;

export const useKnowBetter = () =>
  useKeep(({ entry, field, name, body }: Known) => ({
    doc: betterDoc(entry, field),
    label: `${entry.name}: ${name.toLowerCase()}`,
    method: body ? "PUT" : "DELETE",
    path: `/api/${betterDoc(entry, field)}`,
    body,
    read: 0,
  }));

const shelved = (name: string) => `Shelf: ${name}`;

export const usePutShelf = (name: string) =>
  useKeep(({ entry, read }: Edited<ShelfItem>) =>
    putting("shelf", "shelf", entry.slug, shelved(name || entry.own?.name || entry.slug), entry, read),
  );

export const useDeleteShelf = (name: string) =>
  useKeep(({ entry, read }: Edited<ShelfItem>) =>
    putting("shelf", "shelf", entry.slug, shelved(name), null, read),
  );

export const usePutRecipe = () =>
  useKeep(({ entry, read }: Edited<Recipe>) =>
    putting("recipe", "recipes", entry.slug, `Recipe: ${entry.name}`, entry, read),
  );

export const useDeleteRecipe = () =>
  useKeep(({ entry, read }: Edited<Recipe>) =>
    putting("recipe", "recipes", entry.slug, `Recipe: ${entry.name}`, null, read),
  );

export const useImport = () =>
  useChange(
    (file: {
      name: string;
      text: string;
      on_clash: "ask" | "keep mine" | "take theirs";
    }): Promise<FileReply> => answer(api.POST("/api/import", { body: file })),
  );

/** A key that holds as long as the same is asked: an answer that was lost does not make a second job. */
function useSteadyKey() {
  const held = useRef({ of: "", key: "" });
  return (given: unknown) => {
    const of = JSON.stringify(given);
    if (held.current.of !== of) held.current = { of, key: newId() };
    const params = { header: { "Idempotency-Key": held.current.key } };
    return { params, answered: () => (held.current = { of: "", key: "" }) };
  };
}

export function useBeginJob() {
  const keyed = useSteadyKey();
  return useChange(async (start: { recipe?: string; ml?: number }): Promise<JobReply> => {
    const { params, answered } = keyed(start);
    const made = await answer(api.POST("/api/jobs/start", { params, body: start }));
    answered();
    return made;
  });
}

export function useTakeJob() {
  const keyed = useSteadyKey();
  return useChange(async (file: { name: string; text: string }): Promise<JobReply> => {
    const { params, answered } = keyed(file);
    const made = await answer(api.POST("/api/jobs/file", { params, body: file }));
    answered();
    return made;
  });
}

export const useMend = () =>
  useChange((id: string) => answer(api.POST("/api/jobs/{job_id}/mend", at({ job_id: id }))));

/** What was taken out of the workshop. */
export function useAside() {
  return useQuery<Aside[]>({ queryKey: ["aside"], queryFn: () => answer(api.GET("/api/aside")) });
}

export const useBringBack = () =>
  useChange((number: number) => answer(api.POST("/api/aside/{number}/back", at({ number }))));

export const useDeleteAside = () =>
  useChange((number: number) => answer(api.DELETE("/api/aside/{number}", at({ number }))));

/** What goes with a job that is deleted for good. */
export function useGone(id: string, asked: boolean) {
  return useQuery({
    queryKey: ["gone", id],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/gone", at({ job_id: id }))),
    enabled: asked,
  });
}

export const useDeleteJob = () =>
  useChange((id: string) => answer(api.DELETE("/api/jobs/{job_id}", at({ job_id: id }))));

export function useBackups() {
  return useQuery({ queryKey: ["backups"], queryFn: () => answer(api.GET("/api/backups")) });
}

export const useMakeBackup = () => useChange(() => answer(api.POST("/api/backups")));

/** Go back to a backup: one that Lumso made, by its name, or a file. */
export const useRestore = () =>
  useChange(async (from: string | File): Promise<Restored> => {
    if (typeof from === "string") return answer(api.POST("/api/backups/{name}/restore", at({ name: from })));
    const headers = { "Content-Type": "application/zip" };
    const sent = fetch("/api/restore", { method: "POST", body: from, headers });
    const reply = await sent.catch(() => {
      throw new NoAnswer();
    });
    if (!reply.ok) throw new Refused((await reply.json()) as Problem);
    return (await reply.json()) as Restored;
  });

/** How others come in over the network, and who did. */
export function useWorkshopMode() {
  return useQuery({ queryKey: ["workshop-mode"], queryFn: () => answer(api.GET("/api/workshop-mode")) });
}

export const useTurnOut = () =>
  useChange((id: string) => answer(api.DELETE("/api/devices/{device_id}", at({ device_id: id }))));

export const usePutAway = () =>
  useChange(({ id, away }: { id: string; away: boolean }) =>
    answer(api.PUT("/api/jobs/{job_id}/away", { ...at({ job_id: id }), body: { away } })),
  );
