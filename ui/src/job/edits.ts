import type { Change, Edit, Job, Layer, Zone } from "../api/client";
import { newId } from "../parts/say";

type StackEdit = Extract<Edit, { edit: "stack" }>;

/** An edit of a zone's stack under a seed of its own. */
export const stackEdit = (zone: string, changes: Change[], seed = newId()): StackEdit => ({
  edit: "stack",
  seed,
  zone,
  changes,
});

/** What a layer is before Lumso has answered: its recipe, its way of laying still to be chosen. */
const begun = (id: string, recipe: string): Layer => ({
  id,
  recipe,
  technique: "",
  tool: "",
  want: { by: "area" },
  coats: 1,
  margin: 0.1,
  short_one_in: null,
  touched: 1,
  thickness_mm: 1,
  school: "",
  amounts: {},
  colours: {},
  tints: {},
  pots: [],
  wait_h: null,
  coat_wait_h: null,
  sandings: [],
  dries_by: "air",
  wet_into_wet: false,
  second_tool: "",
  damp_tool: false,
  wrapped_tool: false,
  kept: null,
  hides: null,
  materials: {},
  stroke: "down",
  second_pair: false,
  layout: null,
});

function withChange(zone: Zone, change: Change, id: string): Zone {
  const layers = [...zone.layers];
  const at = (layer: string) => layers.findIndex((x) => x.id === layer);
  const place = (above: string) => (at(above) < 0 ? layers.length : at(above));
  switch (change.do) {
    case "insert":
      layers.splice(place(change.above), 0, begun(id, change.recipe));
      break;
    case "swap":
      return {
        ...zone,
        layers: layers.map((x) =>
          x.id === change.layer ? { ...begun(x.id, change.recipe), coats: x.coats, margin: x.margin } : x,
        ),
      };
    case "remove":
      return { ...zone, layers: layers.filter((x) => x.id !== change.layer) };
    case "move": {
      const [moved] = layers.splice(at(change.layer), at(change.layer) < 0 ? 0 : 1);
      if (moved) layers.splice(place(change.above), 0, moved);
      break;
    }
    default: // what a way out sets or prepares is shown when Lumso has answered
      return zone;
  }
  return { ...zone, layers };
}

/** The job as far as an edit is plain, until Lumso has worked it out. */
export function shownWith(job: Job, edit: Edit): Job {
  const zones = (change: (zone: Zone) => Zone): Job => ({
    ...job,
    zones: job.zones.map((z) => ("zone" in edit && z.id === edit.zone ? change(z) : z)),
  });
  switch (edit.edit) {
    case "stack": {
      let made = 0;
      return zones((zone) =>
        edit.changes.reduce((now, change) => {
          if (change.do === "insert") made += 1;
          return withChange(now, change, made > 1 ? `${edit.seed}-${made}` : edit.seed);
        }, zone),
      );
    }
    case "ground":
      return zones((zone) => ({ ...zone, ground: edit.ground }));
    case "finish":
      return zones((zone) => ({ ...zone, finish: edit.finish }));
    default:
      return job;
  }
}
