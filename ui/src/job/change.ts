import type { Job, Layer, Piece, Zone } from "../api/client";
import { newId } from "../parts/say";
import { stackEdit } from "./edits";
import type { OpenJob } from "./useJob";

/** The job with one of its zones changed. */
export const changeZone = (job: Job, index: number, change: (zone: Zone) => Zone): Job => ({
  ...job,
  zones: job.zones.map((zone, i) => (i === index ? change(zone) : zone)),
});

/** The job with one layer of one of its zones changed. */
export const changeLayer = (job: Job, index: number, layer: number, change: (layer: Layer) => Layer): Job =>
  changeZone(job, index, (zone) => ({
    ...zone,
    layers: zone.layers.map((x, i) => (i === layer ? change(x) : x)),
  }));

/** A copy of a layer under ids of its own. */
export const copyOf = (layer: Layer): Layer => ({
  ...layer,
  id: newId(),
  pots: layer.pots.map((pot) => ({ ...pot, id: newId() })),
});

/** Put a layer of a zone at another place in its stack. */
export function moveLayer(open: OpenJob, zone: Zone, from: number, to: number): void {
  const moved = zone.layers[from];
  if (!moved) return;
  const others = zone.layers.filter((x) => x.id !== moved.id);
  const change = { do: "move", layer: moved.id, above: others[to]?.id ?? "" } as const;
  void open.decide("a layer moved", stackEdit(zone.id, [change]));
}

/** The job with its piece changed; a pot without one stays as it is. */
export const changePiece = (job: Job, change: (piece: Piece) => Piece): Job =>
  job.piece ? { ...job, piece: change(job.piece) } : job;

/** The job with a surface moved into a zone, out of whichever had it; "" leaves it bare. */
export const moveSurface = (job: Job, surface: string, zoneId: string): Job => ({
  ...job,
  zones: job.zones.map((zone) => {
    const others = zone.surfaces.filter((s) => s !== surface);
    return { ...zone, surfaces: zone.id === zoneId ? [...others, surface] : others };
  }),
});
