import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, type Job, type PieceGeometry } from "./client";
import type { components } from "./generated";

type Schemas = components["schemas"];
export type Seen = Schemas["Seen"];
export type Shade = Schemas["Shade"];
export type StripFilm = Schemas["StripFilm"];
/** How much of a stack there is, and how far the hand went. */
export type Stage = Schemas["Stage"];

const HELD = Number.POSITIVE_INFINITY;
const COARSE = 160;
/** A tile wider than this is drawn finer. */
const NEAR_MM = 450;
/** A piece of more zones than this is drawn in flat colours: its pictures would keep its plan waiting. */
const TILED = 12;

const texts = new WeakMap<object, string>();
/** A value as text, remembered: what is part of a job stays the same object until it is changed. */
function text(value: object): string {
  const known = texts.get(value);
  if (known !== undefined) return known;
  const made = JSON.stringify(value);
  texts.set(value, made);
  return made;
}

/** All a look depends on, as a key, and the job with that zone alone. */
function asked(job: Job, zone: string) {
  const one = job.zones.find((z) => z.id === zone);
  return {
    key: [one ? text(one) : "", text(job.entries)],
    body: { job: { ...job, zones: one ? [one] : [] }, zone },
    there: one !== undefined,
  };
}

/** What the tile of a layer with a layout is called, beside that of its zone. */
export const tileOf = (zone: string, layer: string) => `${zone}/${layer}`;

export interface ChipWanted {
  job: Job;
  zone: string;
  variant?: string;
  upto?: string;
  /** As it stands at a step. */
  stage?: Stage;
  /** How wide a tile; 0 for none. */
  tileMm?: number;
  /** Of a tile: the layer with a layout that lies all over it. */
  pattern?: string;
}

function chipQuery(
  { job, zone, variant = "", upto = "", stage, tileMm = 0, pattern = "" }: ChipWanted,
  px: number,
  on = true,
) {
  const { key, body, there } = asked(job, zone);
  return {
    queryKey: ["chip", px, variant, upto, stage ?? null, tileMm, pattern, ...key],
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      answer(
        api.POST("/api/look/chip", {
          params: { query: { px } },
          body: { ...body, variant, upto, stage: stage ?? null, tile_mm: tileMm, pattern },
          parseAs: "blob",
          signal,
        }),
      ) as Promise<Blob>,
    enabled: on && there,
    staleTime: HELD,
    gcTime: 60_000,
    retry: false,
    placeholderData: keepPreviousData,
  };
}

/** Where a picture of a kept job's zone is, as it stands at a step. */
export function stageAddress(job: string, zone: string, stage: Stage, px: number): string {
  const asked = new URLSearchParams({
    coats: `${stage.coats ?? 0}`,
    sandings: `${stage.sandings ?? 0}`,
    hand: stage.hand ?? "",
    wet: `${stage.wet ?? false}`,
    px: `${px}`,
  });
  return `/api/look/jobs/${job}/${encodeURIComponent(zone)}/${encodeURIComponent(stage.layer)}?${asked}`;
}

/** An address for a picture as long as it is shown. */
export function useAddressOf(blob: Blob | undefined): string {
  const [address, setAddress] = useState("");
  useEffect(() => {
    if (!blob) return;
    const made = URL.createObjectURL(blob);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [blob]);
  return blob ? address : "";
}

/** A picture of a zone: coarse as soon as can be, then fine. `old` while it still shows what was before. */
export function useChip(wanted: ChipWanted, fine = 320) {
  const coarse = useQuery(chipQuery(wanted, COARSE));
  const better = useQuery(
    chipQuery(wanted, fine, fine > COARSE && !coarse.isPlaceholderData && !!coarse.data),
  );
  const ready = fine > COARSE && better.data && !better.isPlaceholderData;
  const address = useAddressOf(ready ? better.data : coarse.data);
  return { address, old: coarse.isPlaceholderData, failed: coarse.error };
}

/** The tile that a drawing is filled with: wide enough that nothing repeats on a face, where there is one so wide. */
export function tileFor(drawing: PieceGeometry | null | undefined, tiles: number[]): number {
  const sides = (drawing?.faces ?? [])
    .filter((f) => f.zone)
    .flatMap((f) => {
      const [xs, ys] = [f.outline.map((p) => p.x), f.outline.map((p) => p.y)];
      return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
    });
  const widest = Math.max(0, ...sides);
  return tiles.find((mm) => mm >= widest) ?? tiles.at(-1) ?? NEAR_MM;
}

/** Tiles of all zones of a job, by zone, to fill the drawing of the piece with, and of their layers with a layout. */
export function useTiles(job: Job, tileMm: number): Record<string, string> {
  const wanted = job.zones.flatMap((z) => [
    { name: z.id, zone: z, pattern: "" },
    ...z.layers.flatMap((x) => (x.layout ? [{ name: tileOf(z.id, x.id), zone: z, pattern: x.id }] : [])),
  ]);
  const found = useQueries({
    queries: wanted.map(({ zone, pattern }) =>
      chipQuery(
        { job, zone: zone.id, tileMm, pattern },
        tileMm > NEAR_MM ? 2 * COARSE : COARSE,
        zone.layers.length > 0 && job.zones.length <= TILED,
      ),
    ),
  });
  const blobs = found.map((f) => f.data);
  const [tiles, setTiles] = useState<Record<string, string>>({});
  const names = wanted.map((w) => w.name).join("\n");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is new each time, what is in it is not
  useEffect(() => {
    const made = names
      .split("\n")
      .flatMap((zone, i) => (blobs[i] ? [[zone, URL.createObjectURL(blobs[i])] as const] : []));
    setTiles(Object.fromEntries(made));
    return () => {
      for (const [, address] of made) URL.revokeObjectURL(address);
    };
  }, [names, ...blobs]);
  return tiles;
}

/** The strip of a look, and what is seen of it from afar. */
export function useSeen(job: Job, zone: string, variant = "") {
  const { key, body, there } = asked(job, zone);
  return useQuery<Seen>({
    queryKey: ["seen", variant, ...key],
    queryFn: ({ signal }) => answer(api.POST("/api/look", { body: { ...body, variant }, signal })),
    enabled: there,
    staleTime: HELD,
    gcTime: 60_000,
    retry: false,
    placeholderData: keepPreviousData,
  });
}

/** What a finish of the library is laid with on a ground, from the ground up. */
export const useFinishLayers = (slug: string, ground: string, wanted: boolean) =>
  useQuery({
    queryKey: ["finish layers", slug, ground],
    queryFn: () =>
      answer(api.GET("/api/look/finishes/{slug}/layers", { params: { path: { slug }, query: { ground } } })),
    enabled: wanted,
    staleTime: HELD,
    retry: false,
  });
