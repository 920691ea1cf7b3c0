import { withUnsent } from "../api/bench";
import type { Addition, BenchOp, BenchReply, ByScale, PotNow, ScaleNow } from "../api/client";
import type { Acts } from "./acts";
import type { ToPour } from "./Pouring";
import type { Primary } from "./primary";
import { nextOf, OVER } from "./states";
import { toPour } from "./toPour";

interface Asked {
  reply: BenchReply | undefined;
  operations: BenchOp[];
  /** The operation that is looked at; null for the one that is next. */
  looking: string | null;
  unsent: Parameters<typeof withUnsent>[1];
  /** What the scale says as it happens. */
  shown: (Omit<ScaleNow, "pots"> & { pots?: Record<string, ByScale> }) | null | undefined;
  byHand: boolean;
  adding: Addition | null;
  /** The pot that is used as it is. */
  asIs: string;
}

/** What the hands are at: the operation, its pot and the scale, and which of pouring, stirring and judging it is. */
export interface AtHand {
  at: number;
  next: number;
  op: BenchOp | undefined;
  pot: PotNow | undefined;
  scale: ScaleNow | null;
  byScale: ByScale | null;
  weighs: boolean;
  mixing: boolean;
  cleaning: boolean;
  todo: ToPour | null;
  judging: boolean;
  stirs: boolean;
  /** What was seen is right, or is what was chosen. */
  right: boolean;
}

/** What is at hand now. */
export function atHand({ reply, operations, looking, unsent, shown, byHand, adding, asIs }: Asked): AtHand {
  const next = nextOf(operations, reply?.bench.now ?? -1);
  const picked = looking === null ? next : operations.findIndex((o) => o.operation.id === looking);
  const at = picked < 0 ? next : picked;
  const op = operations[at];
  const pot = potOf(op, reply, unsent);
  const scale = shown ?? reply?.scale ?? null;
  const mixing = op?.operation.kind === "mix" && op.state !== "done";
  const todo = pot && mixing ? toPour(pot, adding) : null;
  const judging = op?.state === "begun" && mixing && !todo && judged(pot, asIs);
  const way = pot?.advice?.way;
  return {
    at,
    next,
    op,
    pot,
    scale,
    byScale: pot ? (shown?.pots?.[pot.pot.pot] ?? pot.by_scale) : null,
    weighs: scale?.state === "listening" && !byHand,
    mixing,
    cleaning: op?.operation.kind === "clean" && pot !== undefined && !OVER.has(op.state),
    todo,
    judging,
    stirs: judging && pot?.pot.state === "pouring",
    right: way === "right" || way === "as chosen",
  };
}

function potOf(
  op: BenchOp | undefined,
  reply: BenchReply | undefined,
  unsent: Asked["unsent"],
): PotNow | undefined {
  const served = op?.pot ? reply?.pots.find((p) => p.pot.pot === op.pot) : undefined;
  return served && withUnsent(served, unsent);
}

/** Whether a mix is judged by eye: what is used as bought, or as it is, is not. */
function judged(pot: PotNow | undefined, asIs: string): boolean {
  return pot !== undefined && (pot.plan?.lines.length ?? 0) >= 2 && asIs !== pot.pot.pot;
}

interface Doings {
  acts: Acts;
  /** What a panel lets the key do, where one does. */
  primary: Primary | null;
  stir: () => void;
  asItIs: (pot: string) => void;
  back: () => void;
}

/** What the large key does now; null where nothing is to be pressed. */
export function keyOf({ op, pot, at, next, todo, ...now }: AtHand, does: Doings): Primary | null {
  if (!op) return null;
  if (OVER.has(op.state))
    return at === next ? null : { says: "Back to what is next", can: true, run: does.back };
  if (op.state !== "begun") {
    const says = op.state === "planned" ? "Begin" : "Begin it again";
    return { says, can: true, run: () => does.acts.begin(op) };
  }
  if (does.primary) return does.primary;
  if (now.stirs) return { says: "It is stirred", can: true, run: does.stir };
  if (now.judging && !now.right && pot)
    return { says: "Use it as it is", can: true, run: () => does.asItIs(pot.pot.pot) };
  if (now.mixing && todo) return null;
  return { says: "Done", can: true, run: () => does.acts.mark("done", op) };
}
