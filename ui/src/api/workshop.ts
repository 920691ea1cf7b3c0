import {
  infiniteQueryOptions,
  keepPreviousData,
  queryOptions,
  useInfiniteQuery,
  useQuery,
} from "@tanstack/react-query";
import { useMemo } from "react";
import { useEdited } from "../keep/hooks";
import {
  type Aside,
  answer,
  api,
  type BetterEntry,
  type Catalogue,
  type Door,
  type Jobs,
  type Kit,
  type Recipe,
  type Reply,
  revisionOf,
  type Settings,
  type Shelf,
  type ShelfItem,
  type ShelfLine,
  type Unread,
} from "./client";

const HELD = Number.POSITIVE_INFINITY;

/** What was asked for: there, or not yet. */
type Asked<T> = { error: Error | null; refetch: () => unknown } & ({ data: T } | { data: undefined });

const NO_KITS: Kit[] = [];
const NO_RECIPES: Recipe[] = [];
const NO_LINES: ShelfLine[] = [];

/** Everything there is to choose from, with what was changed here and is not saved yet; asked for when it is wanted. */
export function useCatalogue(enabled = true) {
  const asked = useQuery<Catalogue>({
    queryKey: ["catalogue"],
    queryFn: () => answer(api.GET("/api/catalogue")),
    staleTime: HELD,
    enabled,
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

/** What was asked for as the page was opened is not asked for again by what is drawn a moment later. */
const JUST_NOW_MS = 2000;

/** A list that is had a page after the other; the last answer stays until the next one is there. */
const pages = <P extends { more: string }>(
  key: unknown[],
  ask: (after: string, signal: AbortSignal) => Reply<P>,
) =>
  infiniteQueryOptions<P, Error, P[], unknown[], string>({
    queryKey: key,
    queryFn: ({ pageParam, signal }) => answer(ask(pageParam, signal)),
    initialPageParam: "",
    getNextPageParam: (page) => page.more || null,
    select: (held) => held.pages,
    placeholderData: keepPreviousData,
    staleTime: JUST_NOW_MS,
  });

export interface JobsAsked {
  search?: string;
  away?: boolean;
  order?: "last" | "name";
}

/** What asks for the list of jobs. */
export const jobsAsked = ({ search = "", away = false, order = "last" }: JobsAsked = {}) =>
  pages<Jobs>(["jobs", search, away, order], (after, signal) =>
    api.GET("/api/jobs", { params: { query: { search, away, after, order } }, signal }),
  );

/** The list of jobs, a page after the other. */
export const useJobs = (asked: JobsAsked = {}) => useInfiniteQuery(jobsAsked(asked));

/** What is kept in the workshop and cannot be read. */
export function useUnread() {
  return useQuery<Unread[]>({ queryKey: ["unread"], queryFn: () => answer(api.GET("/api/unread")) });
}

/** What was chosen for the workshop, and the revision of it. */
export type Chosen = Settings & { revision: number };

const NOT_YET: Chosen[] = [];

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
  const asked = useInfiniteQuery(
    pages<Shelf>(["shelf", on, search], (after, signal) =>
      api.GET("/api/shelf", { params: { query: { on, search, after } }, signal }),
    ),
  );
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
  // Counted anew it is what was counted; anything else leaves what is left as it is.
  const counted = line && line.item.on_hand === item.on_hand && line.item.unit === item.unit;
  const left_now = counted ? line.left_now : item.on_hand;
  if (line) return { ...line, item, left_now, on_shelf: true };
  const material = item.own as ShelfLine["material"];
  return { material, item, on_shelf: true, left_now, values: [], revision: 0 };
}

/** What can be known better of every entry of the book, materials aside. */
export function useBetter() {
  return useQuery<BetterEntry[]>({ queryKey: ["better"], queryFn: () => answer(api.GET("/api/better")) });
}

/** What was taken out of the workshop. */
export function useAside() {
  return useQuery<Aside[]>({ queryKey: ["aside"], queryFn: () => answer(api.GET("/api/aside")) });
}

/** What goes with a job that is deleted for good. */
export function useGone(id: string, asked: boolean) {
  return useQuery({
    queryKey: ["gone", id],
    queryFn: () => answer(api.GET("/api/jobs/{job_id}/gone", { params: { path: { job_id: id } } })),
    enabled: asked,
  });
}

/** The backups; only a device that keeps the workshop asks for them. */
export function useBackups() {
  const enabled = useKind() === "keeps";
  return useQuery({ queryKey: ["backups"], queryFn: () => answer(api.GET("/api/backups")), enabled });
}

/** What asks whether this device is let in, and what it may do. */
export const doorAsked = queryOptions({ queryKey: ["door"], queryFn: () => answer(api.GET("/api/door")) });
/** What this device may do: look, work, or keep the workshop. Taken to work until it is known. */
export function useKind(): Door["kind"] {
  const door = useQuery({ ...doorAsked, staleTime: JUST_NOW_MS });
  return door.data?.kind ?? "works";
}

/** What is wrong with the workshop as a whole; empty where nothing is. */
export function useTrouble(): string {
  const asked = useQuery({ queryKey: ["identity"], queryFn: () => answer(api.GET("/api/identity")) });
  return asked.data?.trouble ?? "";
}

/** How others come in over the network, and who did. */
export function useWorkshopMode() {
  const enabled = useKind() === "keeps";
  const queryFn = () => answer(api.GET("/api/workshop-mode"));
  return useQuery({ queryKey: ["workshop-mode"], queryFn, enabled });
}
