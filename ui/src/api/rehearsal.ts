import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Job } from "./client";
import type { components } from "./generated";
import { useAddressOf } from "./look";

type Schemas = components["schemas"];
export type Rehearsed = Schemas["RehearsedOut"];
export type When = Schemas["When"];
export type Act = Schemas["RehearseIn"]["acts"] extends (infer A)[] | undefined ? A : never;

const COARSE = 160;
const FINE = 448;

/** A zone of a job, the afternoon it is rehearsed on, and what was done so far. */
export interface Rehearsing {
  job: Job;
  zone: string;
  seed: number;
  acts: Act[];
}

function asked({ job, zone, seed, acts }: Rehearsing) {
  const body = { job: { ...job, zones: job.zones.filter((z) => z.id === zone) }, zone, seed, acts };
  return { key: [job, zone, seed, acts], body };
}

/** What is seen after all that was done. */
export function useRehearsed(wanted: Rehearsing) {
  const { key, body } = asked(wanted);
  return useQuery<Rehearsed>({
    queryKey: ["rehearsed", ...key],
    queryFn: ({ signal }) => answer(api.POST("/api/rehearsal", { body, signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: false,
  });
}

/** The board as it is seen, or as it was planned to come out: coarse at once, then fine. */
export function useBoard(wanted: Rehearsing, planned: boolean, fine: boolean) {
  const { key, body } = asked(planned ? { ...wanted, seed: 0, acts: [] } : wanted);
  const query = (px: number, enabled: boolean) => ({
    queryKey: ["rehearsed-board", planned, px, ...key],
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      answer(
        api.POST("/api/rehearsal/picture", {
          params: { query: { px, planned } },
          body,
          parseAs: "blob",
          signal,
        }),
      ) as Promise<Blob>,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: false,
    enabled,
  });
  const coarse = useQuery(query(COARSE, true));
  const better = useQuery(query(FINE, fine && !coarse.isPlaceholderData && !!coarse.data));
  const ready = fine && better.data && !better.isPlaceholderData;
  return useAddressOf(ready ? better.data : coarse.data);
}
