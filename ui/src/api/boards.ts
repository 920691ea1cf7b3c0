import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { newId } from "../parts/say";
import { answer, api, type Job } from "./client";
import type { components } from "./generated";

type Schemas = components["schemas"];
export type Board = NonNullable<Job["board"]>;
export type Strip = Board["strips"][number];
export type Ladder = Board["ladders"][number];
export type Verdict = Strip["verdict"];
export type SeenColour = NonNullable<Strip["seen"]>;
export type Stepped = Schemas["Stepped"];
export type Taught = Schemas["Taught"];
export type Photograph = Schemas["PhotographOut"];
export type Box = Schemas["Box"];

/** Why a board is worth making, and what can be tried on it for a layer. */
export function useOffers(job: Job, zone: string, layer: string) {
  return useQuery({
    queryKey: ["offers", zone, layer, job],
    queryFn: ({ signal }) => answer(api.POST("/api/boards/offers", { body: { job, zone, layer }, signal })),
    enabled: layer !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
}

/** What the colours seen on a board say; null where none was. */
export function useTaught(job: Job) {
  return useQuery<Taught | null>({
    queryKey: ["taught", job.zones, job.board?.strips.map((s) => s.seen)],
    queryFn: ({ signal }) => answer(api.POST("/api/boards/taught", { body: { job }, signal })),
    enabled: Boolean(job.board?.strips.some((s) => s.seen)),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
}

/** One pot for all strips, where that saves. */
export function useStepped(job: Job) {
  return useQuery<Stepped | null>({
    queryKey: ["stepped", job.board?.ladders, job.zones],
    queryFn: ({ signal }) => answer(api.POST("/api/boards/stepped", { body: { job }, signal })),
    retry: false,
    gcTime: 60_000,
  });
}

/** A board for a zone, planned and kept as a job of its own. */
export function useMakeBoard() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (asked: { job: Job; job_id: string; zone: string; ladders: Ladder[] }) => {
      const seed = newId();
      const planned = await answer(api.POST("/api/boards/plan", { body: { ...asked, seed } }));
      const params = { header: { "Idempotency-Key": seed } };
      return answer(api.POST("/api/jobs", { body: planned.job, params }));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ["jobs"] }),
  });
}

/** A photograph kept: sent as its file. */
export async function keepPhotograph(file: Blob): Promise<Photograph> {
  return answer(
    api.POST("/api/photographs", {
      body: file as never,
      bodySerializer: (body) => body as never,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );
}
