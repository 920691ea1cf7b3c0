/** Where something stands: keys on the way, and what tells the things of lists apart; what is worked out has lists
 * without that too, where a number says which. */
export type Place = (string | number | { id: string })[];

/** Values set, and lists of things with ids added to, taken from or put in another order. */
export type Patch = Step[];
type Step =
  | { at: Place; value?: unknown }
  | { at: Place; order: string[]; added: Record<string, unknown>; removed: string[] };

type Plain = Record<string, unknown>;

const isPlain = (x: unknown): x is Plain => typeof x === "object" && x !== null && !Array.isArray(x);
/** What things of a list are told by: the first of these that they have. What is worked out has the last two. */
const NAMES = ["id", "slug", "layer", "zone"];
const nameOf = (x: unknown, names = NAMES): string | undefined => {
  const name = isPlain(x) ? names.find((n) => typeof x[n] === "string") : undefined;
  return name && ((x as Plain)[name] as string);
};
/** The things of a list by their names, in order; undefined where one has none, or two have one. */
function byName(x: unknown, names = NAMES): Map<string, unknown> | undefined {
  if (!Array.isArray(x)) return undefined;
  const found = new Map(x.map((one) => [nameOf(one, names) ?? "", one]));
  return found.size === x.length && x.every((one) => nameOf(one, names)) ? found : undefined;
}
const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What makes `after` of `before`. Things with ids are followed by them, so that it can be made of another version. */
export function diff(before: unknown, after: unknown, at: Place = []): Patch {
  if (before === after) return [];
  const [had, has] = [byName(before, NAMES.slice(0, 2)), byName(after, NAMES.slice(0, 2))];
  if (had && has) return diffLists(had, has, at);
  if (isPlain(before) && isPlain(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => diff(before[key], after[key], [...at, key]));
  }
  if (same(before, after)) return [];
  return [after === undefined ? { at } : { at, value: after }];
}

function diffLists(had: Map<string, unknown>, has: Map<string, unknown>, at: Place): Patch {
  const order = [...has.keys()];
  const added = Object.fromEntries([...has].filter(([name]) => !had.has(name)));
  const removed = [...had.keys()].filter((name) => !has.has(name));
  const steps: Patch = same(order, [...had.keys()]) ? [] : [{ at, order, added, removed }];
  for (const [name, x] of has)
    if (had.has(name)) steps.push(...diff(had.get(name), x, [...at, { id: name }]));
  return steps;
}

/** `value` with a patch made to it; what the patch speaks of and is not there is left out. */
export function patched<T>(value: T, patch: Patch): T {
  return patch.reduce<unknown>((now, step) => put(now, step.at, step), value) as T;
}

function put(value: unknown, way: Place, step: Step): unknown {
  const [key, ...rest] = way;
  if (key === undefined) return "order" in step ? arranged(value, step) : step.value;
  if (typeof key === "string") {
    if (!isPlain(value)) return value;
    const next = put(value[key], rest, step);
    if (next !== undefined) return { ...value, [key]: next };
    const { [key]: _, ...others } = value;
    return others;
  }
  if (!Array.isArray(value)) return value;
  const at = typeof key === "number" ? key : value.findIndex((x) => nameOf(x) === key.id);
  return value.map((x, i) => (i === at ? put(x, rest, step) : x));
}

/** A list with things added, taken out and in another order; what the order does not know stays behind what it follows. */
function arranged(value: unknown, step: Extract<Step, { order: string[] }>): unknown {
  const kept = Array.isArray(value) ? value.filter((x) => !step.removed.includes(nameOf(x) ?? "")) : [];
  const known = byName(kept) ?? new Map<string, unknown>();
  const followers = new Map<string, unknown[]>([["", []]]);
  let last = "";
  for (const [name, x] of known) {
    if (step.order.includes(name)) last = name;
    else followers.set(last, [...(followers.get(last) ?? []), x]);
  }
  const ordered = step.order.filter((name) => known.has(name) || name in step.added);
  return [
    ...(followers.get("") ?? []),
    ...ordered.flatMap((name) => [known.get(name) ?? step.added[name], ...(followers.get(name) ?? [])]),
  ];
}

const WORDS: Record<string, string> = {
  accepted: "what is meant",
  amounts: "a share",
  bands: "what stays bare",
  coats: "coats",
  colours: "a colour",
  condition: "the condition",
  counts: "a count",
  like: "like pieces",
  margin: "the margin",
  name: "a name",
  parts: "a part",
  pots: "pots",
  prep: "preparation",
  reasons: "a reason",
  relief: "the relief",
  rough: "how it was measured",
  short_one_in: "the margin",
  coat_wait_h: "a wait",
  dries_by: "how it dries",
  facts: "what is on the ground",
  materials: "a material",
  sandings: "sanding",
  second_tool: "the tools",
  touched_by: "the use",
  wet_into_wet: "wet into wet",
  school: "the school",
  second_pair: "the hands",
  stroke: "the strokes",
  sheen: "the sheen",
  sizes: "a size",
  surfaces: "a surface moved",
  thickness_mm: "the thickness",
  tints: "a colour",
  tool: "the tool",
  touched: "the share touched",
  layout: "where it goes",
  use: "the use",
  wait_h: "a wait",
  want: "the amount",
};

/** What a patch does, in a few words for the undo button. */
export function named(patch: Patch): string {
  const [first] = patch;
  if (!first) return "";
  const keys = first.at.filter((k) => typeof k === "string");
  if ("order" in first) {
    const thing = keys.at(-1) === "zones" ? "zone" : keys.at(-1) === "layers" ? "layer" : "part";
    if (Object.keys(first.added).length) return `a ${thing} added`;
    return first.removed.length ? `a ${thing} taken out` : `a ${thing} moved`;
  }
  return keys.map((k) => WORDS[k]).find((w) => w !== undefined) ?? "a change";
}

/** Whether two patches set the same one value: typing goes on. */
export function sameSpot(a: Patch, b: Patch): boolean {
  return a.length === 1 && b.length === 1 && same(a[0]?.at, b[0]?.at) && !("order" in (a[0] ?? {}));
}
