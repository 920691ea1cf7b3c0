/** Where something stands in a job: keys on the way, and the ids of zones, layers and parts in lists. */
export type Place = (string | { id: string })[];

/** Values set, and lists of things with ids added to, taken from or put in another order. */
export type Patch = Step[];
type Step =
  | { at: Place; value: unknown }
  | { at: Place; order: string[]; added: Record<string, unknown>; removed: string[] };

interface Named {
  id: string;
}
type Plain = Record<string, unknown>;

const isPlain = (x: unknown): x is Plain => typeof x === "object" && x !== null && !Array.isArray(x);
const isNamed = (x: unknown): x is Named => isPlain(x) && typeof x.id === "string";
const areNamed = (x: unknown): x is Named[] => Array.isArray(x) && x.every(isNamed);
const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What makes `after` of `before`. Things with ids are followed by them, so that it can be made of another version. */
export function diff(before: unknown, after: unknown, at: Place = []): Patch {
  if (before === after) return [];
  if (areNamed(before) && areNamed(after)) return diffLists(before, after, at);
  if (isPlain(before) && isPlain(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => diff(before[key], after[key], [...at, key]));
  }
  return same(before, after) ? [] : [{ at, value: after }];
}

function diffLists(before: Named[], after: Named[], at: Place): Patch {
  const had = new Map(before.map((x) => [x.id, x]));
  const has = new Set(after.map((x) => x.id));
  const added = Object.fromEntries(after.filter((x) => !had.has(x.id)).map((x) => [x.id, x]));
  const removed = before.filter((x) => !has.has(x.id)).map((x) => x.id);
  const order = after.map((x) => x.id);
  const moved = !same(
    order,
    before.map((x) => x.id),
  );
  const steps: Patch = moved ? [{ at, order, added, removed }] : [];
  for (const x of after) {
    const old = had.get(x.id);
    if (old) steps.push(...diff(old, x, [...at, { id: x.id }]));
  }
  return steps;
}

/** `value` with a patch made to it; what the patch speaks of and is not there is left out. */
export function patched<T>(value: T, patch: Patch): T {
  return patch.reduce<unknown>((now, step) => put(now, step.at, step), value) as T;
}

function put(value: unknown, way: Place, step: Step): unknown {
  const [key, ...rest] = way;
  if (key === undefined) return "value" in step ? step.value : arranged(value, step);
  if (typeof key === "string") {
    if (!isPlain(value)) return value;
    const next = put(value[key], rest, step);
    if (next !== undefined) return { ...value, [key]: next };
    const { [key]: _, ...others } = value;
    return others;
  }
  if (!areNamed(value)) return value;
  return value.map((x) => (x.id === key.id ? put(x, rest, step) : x));
}

/** A list with things added, taken out and in another order; what the order does not know stays behind what it follows. */
function arranged(value: unknown, step: Exclude<Step, { value: unknown }>): unknown {
  const now = areNamed(value) ? value.filter((x) => !step.removed.includes(x.id)) : [];
  const known = new Map(now.map((x) => [x.id, x]));
  const followers = new Map<string, Named[]>([["", []]]);
  let last = "";
  for (const x of now) {
    if (step.order.includes(x.id)) last = x.id;
    else followers.set(last, [...(followers.get(last) ?? []), x]);
  }
  const ordered = step.order
    .map((id) => known.get(id) ?? (step.added[id] as Named | undefined))
    .filter((x) => x !== undefined);
  return [...(followers.get("") ?? []), ...ordered.flatMap((x) => [x, ...(followers.get(x.id) ?? [])])];
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
  return a.length === 1 && b.length === 1 && same(a[0]?.at, b[0]?.at) && "value" in (a[0] ?? {});
}
