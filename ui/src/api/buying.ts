import { useQuery } from "@tanstack/react-query";
import { useEdited, useEdits, useKeeping } from "../keep/hooks";
import {
  answer,
  api,
  type Buying,
  type Cost,
  type FinishCost,
  type Lot,
  type LotLine,
  type Purse,
  type PurseReply,
  revisionOf,
} from "./client";
import { useKeep } from "./edits";

export type PurseHere = PurseReply & { revision: number };

const NOT_YET: PurseHere[] = [];

/** What was chosen for buying, with what was changed here and is not saved yet. */
export function usePurse() {
  const asked = useQuery<PurseHere[]>({
    queryKey: ["buying", "purse"],
    queryFn: async () => {
      const got = api.GET("/api/buying/purse");
      const data = await answer(got);
      return [{ ...data, revision: revisionOf((await got).response) }];
    },
  });
  const [data] = useEdited({
    kind: "buying",
    list: asked.data ?? NOT_YET,
    slug: () => "purse",
    revision: (p) => p.revision,
    made: (body, entry) => ({
      ...(entry ?? { jobs: [], items: [], exponent: 2, revision: 0 }),
      purse: body as Purse,
    }),
    joins: () => false,
  });
  return { data, error: asked.error, refetch: asked.refetch };
}

export const usePutPurse = () =>
  useKeep(({ purse, read }: { purse: Purse; read: number; typed?: true }) => ({
    doc: "buying/purse",
    label: "Buying",
    method: "PUT",
    path: "/api/buying/purse",
    body: purse,
    read,
  }));

const NO_LOTS: LotLine[] = [];

/** The list, and what was bought, with what was ticked here and is not saved yet. */
export function useBuying() {
  const asked = useQuery<Buying>({
    queryKey: ["buying", "list"],
    queryFn: ({ signal }) => answer(api.GET("/api/buying/list", { signal })),
    retry: false,
  });
  const { outbox } = useKeeping();
  const edits = useEdits();
  const every = useEdited<LotLine>({
    kind: "lot",
    list: asked.data?.lots ?? NO_LOTS,
    slug: (l) => l.lot.slug,
    revision: (l) => l.revision,
    made: (body, entry) => {
      const lot = body as Lot;
      return { ...(entry ?? { revision: 0, free: lot.left, paid: "" }), lot, left_now: lot.left };
    },
    joins: (body) => body !== null,
  });
  const last = new Map(edits.map((e) => [e.doc, e]));
  const lots = every.filter((l) => {
    const doc = `lot/${l.lot.slug}`;
    const edit = last.get(doc);
    if (edit) return edit.method !== "DELETE" || edit.says !== null;
    // What was taken back and is not seen gone yet is gone.
    return outbox.saved.get(doc)?.body !== null;
  });
  return { data: asked.data, lots, error: asked.error, refetch: asked.refetch, asking: asked.isFetching };
}

const bought = (lot: Lot) => `Bought: ${lot.name}${lot.colour ? `, ${lot.colour}` : ""}`;

export const usePutLot = () =>
  useKeep(({ lot, read }: { lot: Lot; read: number; typed?: true }) => ({
    doc: `lot/${lot.slug}`,
    label: bought(lot),
    method: "PUT",
    path: `/api/lots/${lot.slug}`,
    body: lot,
    read,
  }));

export const useDeleteLot = () =>
  useKeep(({ lot, read }: { lot: Lot; read: number }) => ({
    doc: `lot/${lot.slug}`,
    label: bought(lot),
    method: "DELETE",
    path: `/api/lots/${lot.slug}`,
    body: null,
    read,
  }));

/** The ways to cover one line that none of the others beats. */
export const useChoices = (key: string, open: boolean) =>
  useQuery({
    queryKey: ["buying", "choices", key],
    queryFn: ({ signal }) => answer(api.GET("/api/buying/choices", { params: { query: { key } }, signal })),
    enabled: open,
    retry: false,
  });

export const useCost = (job: string) =>
  useQuery<Cost>({
    queryKey: ["cost", job],
    queryFn: ({ signal }) =>
      answer(api.GET("/api/jobs/{job_id}/cost", { params: { path: { job_id: job } }, signal })),
    retry: false,
  });

export const useFinishCosts = (job: string, zone: string, asked: boolean) =>
  useQuery<FinishCost[]>({
    queryKey: ["cost", job, "finishes", zone],
    queryFn: ({ signal }) =>
      answer(
        api.GET("/api/jobs/{job_id}/cost/finishes", {
          params: { path: { job_id: job }, query: { zone } },
          signal,
        }),
      ),
    enabled: asked && zone !== "",
    retry: false,
  });
