import type { Job, Layer, Piece, Zone } from "../api/client";
import { newId } from "../parts/say";

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

/** The job with a layer of a zone moved to another place in its stack. */
export const moveLayer = (job: Job, index: number, from: number, to: number): Job =>
  changeZone(job, index, (zone) => {
    const layers = [...zone.layers];
    const [moved] = layers.splice(from, 1);
    if (moved) layers.splice(to, 0, moved);
    return { ...zone, layers };
  });

/** The job with a zone's whole treatment copied to others: layers, preparation and what was accepted. */
export const copyStack = (job: Job, from: number, to: number[]): Job => {
  const source = job.zones[from];
  if (!source) return job;
  const zones = job.zones.map((zone, i) => {
    if (!to.includes(i)) return zone;
    const layers = source.layers.map(copyOf);
    const ids = new Map(source.layers.map((layer, k) => [layer.id, layers[k]?.id ?? ""]));
    const accepted = source.accepted.map((a) => ({ ...a, layer: ids.get(a.layer) ?? "" }));
    return { ...zone, layers, accepted, prep: source.prep, finish: source.finish };
  });
  return { ...job, zones };
};

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
