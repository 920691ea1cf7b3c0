import type { Job, Layer, Zone } from "../api/client";

/** The job with its first zone changed. */
export const changeZone = (job: Job, change: (zone: Zone) => Zone): Job => ({
  ...job,
  zones: job.zones.map((zone, i) => (i === 0 ? change(zone) : zone)),
});

/** The job with the first layer of its first zone changed. */
export const changeLayer = (job: Job, change: (layer: Layer) => Layer): Job =>
  changeZone(job, (zone) => ({
    ...zone,
    layers: zone.layers.map((layer, i) => (i === 0 ? change(layer) : layer)),
  }));
