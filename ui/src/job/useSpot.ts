import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import type { Job, Layer, Zone } from "../api/client";
import { typing } from "../help/keys";
import type { OpenJob } from "./useJob";

const NONE: Zone[] = [];
const NO_LAYERS: Layer[] = [];

/** The zone and the layer that are picked, by their places, and how another is. */
export interface Spot {
  zone: number;
  layer: number;
  setZone: (index: number) => void;
  setLayer: (index: number) => void;
}

/** The zone and the layer that are picked. They count at once; the address follows, and leads where it was come back to
 * or passed on. */
export function useSpot(open: OpenJob | null | undefined): Spot {
  const [params, setParams] = useSearchParams();
  const addressed = { zone: params.get("zone"), layer: params.get("layer") };
  const [picked, setPicked] = useState(addressed);
  const { zone: toZone, layer: toLayer } = addressed;
  useEffect(() => setPicked({ zone: toZone, layer: toLayer }), [toZone, toLayer]);
  const zones = open?.job.zones ?? NONE;
  const zone = placeOf(zones, picked.zone);
  const layer = placeOf(zones[zone]?.layers ?? NO_LAYERS, picked.layer);
  const looked = zones[zone]?.id;
  const lookAt = open?.session.lookAt;
  useEffect(() => {
    if (looked) lookAt?.(looked);
  }, [looked, lookAt]);
  const pick = (next: { zone: string | null; layer: string | null }) => {
    setPicked(next);
    setParams((was) => withSpot(was, next), { replace: true });
  };
  // What was just added is not in this drawing of the job yet: it is found by its place in the newest one.
  const newest = (): Job["zones"] => open?.session.shown()?.job.zones ?? zones;
  return {
    zone,
    layer,
    setZone: (index) => pick({ zone: newest()[index]?.id ?? null, layer: null }),
    setLayer: (index) =>
      pick({ zone: newest()[zone]?.id ?? null, layer: newest()[zone]?.layers[index]?.id ?? null }),
  };
}

/** The place of what has an id; the first where none has. */
const placeOf = (of: readonly { id: string }[], id: string | null): number =>
  Math.max(
    0,
    of.findIndex((one) => one.id === id),
  );

/** The address with another spot in it. */
function withSpot(
  was: URLSearchParams,
  next: { zone: string | null; layer: string | null },
): URLSearchParams {
  const address = new URLSearchParams(was);
  for (const key of ["zone", "layer"] as const)
    if (next[key]) address.set(key, next[key]);
    else address.delete(key);
  return address;
}

/** Ctrl+Z and Ctrl+Shift+Z, but for where somebody is typing. */
export function useUndoKeys(undo: (() => void) | undefined, redo: (() => void) | undefined): void {
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z" || typing(e.target)) return;
      e.preventDefault();
      if (e.shiftKey) redo?.();
      else undo?.();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [undo, redo]);
}
