import type { Job, Layer, Piece, Zone } from "../api/client";

/** The job with one of its zones changed. */
export const changeZone = (job: Job, index: number, change: (zone: Zone) => Zone): Job => ({
  ...job,
  zones: job.zones.map((zone, i) => (i === index ? change(zone) : zone)),
});

/** The job with the first layer of one of its zones changed. */
export const changeLayer = (job: Job, index: number, change: (layer: Layer) => Layer): Job =>
  changeZone(job, index, (zone) => ({
    ...zone,
    layers: zone.layers.map((layer, i) => (i === 0 ? change(layer) : layer)),
  }));

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
