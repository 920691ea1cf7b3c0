import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Job, type LayoutReply } from "./client";

/** A layer's layout on its faces. */
export function useLayout(job: Job, zone: string, layer: string, on: boolean) {
  return useQuery<LayoutReply>({
    queryKey: ["layout", job.piece, job.zones.find((z) => z.id === zone), layer],
    queryFn: ({ signal }) =>
      answer(api.POST("/api/layouts", { body: { sequence: 0, job, zone, layer }, signal })),
    enabled: on,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** The kinds of layout there are, each with what it begins as: the same as long as Lumso is. */
export function useLayoutKinds() {
  return useQuery({
    queryKey: ["layout kinds"],
    queryFn: ({ signal }) => answer(api.GET("/api/layouts", { signal })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: Number.POSITIVE_INFINITY,
  });
}

export type Paper = "a4" | "letter";

interface File {
  job: string;
  zone: string;
  layer: string;
  face: number;
  what: "face" | "stick across" | "stick down";
  paper?: Paper;
  across?: number | undefined;
  down?: number | undefined;
}

/** Where a layout at its true size is. */
export function templateAt(kind: "pdf" | "svg" | "dxf", { job, across, down, ...file }: File): string {
  const query = new URLSearchParams({ ...file, face: String(file.face) });
  if (across) query.set("across_mm", String(across));
  if (down) query.set("down_mm", String(down));
  return `/api/jobs/${job}/layout.${kind}?${query}`;
}
