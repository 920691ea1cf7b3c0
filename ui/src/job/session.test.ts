import { beforeEach, describe, expect, it } from "vitest";
import type { Edit, Job, JobReply, Layer, Plan, Saved } from "../api/client";
import { shownWith, stackEdit } from "./edits";
import { type Kept, type Outside, Overtaken, type Sent, Unanswered } from "./outer";
import { JobSession } from "./session";

const put = (recipe: string, above = "") =>
  ({ do: "insert", above, recipe, technique: "", wait_h: null }) as const;
const START = {
  name: "Rack",
  zones: [{ id: "top", name: "Top", ground: "pine", prep: [], accepted: [], finish: "", layers: [] }],
  entries: { recipes: [] },
} as unknown as Job;

/** A server that can be stopped, and a browser that keeps things: what a session sees of the world. */
class World implements Outside {
  up = true;
  refuses = "";
  overtaken = false;
  job: Job = START;
  revision = 1;
  held: Kept | null = null;
  time = 0;
  plans: Job[] = [];
  saves: Job[] = [];
  edits: Edit[] = [];
  hold: (() => void)[] | null = null;
  timers: { at: number; run: () => void }[] = [];

  private async answer<T>(make: () => T): Promise<T> {
    if (this.hold) await new Promise<void>((go) => this.hold?.push(go));
    if (!this.up) throw new Unanswered("Lumso is not answering.");
    return make();
  }
  load = () =>
    this.answer(
      () =>
        ({
          id: "x",
          revision: this.revision,
          job: this.job,
          plan: { of: this.job.name },
          can_undo: this.revision > 1,
          can_redo: false,
        }) as unknown as JobReply,
    );
  edit = (job: Job, edit: Edit) =>
    this.answer(() => {
      if (this.refuses) throw new Error(this.refuses);
      this.edits.push(edit);
      const shown = shownWith(job, edit);
      const laid = (x: Layer) => ({ ...x, technique: x.technique || "brushed" });
      const zones = shown.zones.map((z) => ({ ...z, layers: z.layers.map(laid) }));
      return { job: { ...shown, zones }, taken: [] };
    });
  plan = (job: Job, _: string, signal: AbortSignal) =>
    this.answer(() => {
      if (signal.aborted) throw new Error("aborted");
      this.plans.push(job);
      return { of: job.name } as unknown as Plan;
    });
  private done = new Map<string, Saved>();
  /** Whether what is saved is answered: a server may be gone before it says so. */
  answers = true;
  refusesSaves = false;
  save = ({ job, revision, key }: Sent) =>
    this.answer(() => {
      if (this.refusesSaves) throw new Error("That cannot be used.");
      const before = this.done.get(key);
      if (before) return before;
      if (this.overtaken || revision !== this.revision) throw new Overtaken("changed elsewhere");
      this.saves.push(job);
      this.job = job;
      this.revision += 1;
      const { entries } = job;
      const saved = { revision: this.revision, can_undo: true, can_redo: false, entries } as Saved;
      this.done.set(key, saved);
      if (!this.answers) throw new Unanswered("Lumso is not answering.");
      return saved;
    });
  stepKeys: string[] = [];
  step = (way: "undo" | "redo", _: number, key: string) => {
    this.stepKeys.push(key);
    return this.answer(
      () => ({ ...this.job, way, revision: 1, job: START, plan: {} }) as unknown as JobReply,
    );
  };
  lasting = true;
  kept = async () => this.held;
  keep = async (kept: Kept | null) => {
    this.held = kept && (JSON.parse(JSON.stringify(kept)) as Kept);
    return this.lasting;
  };
  private keys = 0;
  newKey = () => `key ${++this.keys}`;
  now = () => this.time;
  later = (ms: number, run: () => void) => {
    const timer = { at: this.time + ms, run };
    this.timers.push(timer);
    return () => {
      this.timers = this.timers.filter((t) => t !== timer);
    };
  };

  /** Let what was asked for be answered, and time pass. */
  async passes(ms = 0) {
    this.time += ms;
    for (let round = 0; round < 30; round += 1) {
      const due = this.timers.filter((t) => t.at <= this.time);
      this.timers = this.timers.filter((t) => t.at > this.time);
      for (const timer of due) timer.run();
      await Promise.resolve();
    }
  }
}

let world: World;
let session: JobSession;
const now = () => {
  const shown = session.shown();
  if (!shown) throw new Error("nothing is shown");
  return shown;
};
const recipes = () => now().job.zones[0]?.layers.map((x) => `${x.recipe}/${x.technique}`);
const rename = (name: string) => session.edit((job) => ({ ...job, name }));
const opened = async () => {
  session = new JobSession(world);
  await session.open();
};

beforeEach(async () => {
  world = new World();
  await opened();
});

describe("plain values", () => {
  it("show at once, are planned, and save themselves a moment later", async () => {
    rename("Shelf");
    expect(now().job.name).toBe("Shelf");
    expect(now().saveState).toBe("saving");
    await world.passes();
    expect(world.plans.map((j) => j.name)).toEqual(["Shelf"]);
    expect(world.saves).toEqual([]);
    await world.passes(400);
    expect(world.saves.map((j) => j.name)).toEqual(["Shelf"]);
    expect(now().saveState).toBe("saved");
    expect(world.held).toBeNull();
  });

  it("are planned for the newest job only: what is overtaken is cancelled", async () => {
    world.hold = [];
    rename("A");
    rename("B");
    rename("C");
    const go = world.hold;
    world.hold = null;
    for (const answer of go) answer();
    await world.passes();
    expect(world.plans.map((j) => j.name)).toEqual(["C"]);
    expect(now().stale).toBe(false);
  });

  it("that say nothing new are no edits", async () => {
    rename("Rack");
    expect(now().undo).toBeNull();
    await world.passes(400);
    expect(world.saves).toEqual([]);
  });
});

describe("edits that Lumso decides", () => {
  it("show as far as they are plain, and are completed when it answers", async () => {
    const done = session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    expect(recipes()).toEqual(["wash/"]);
    expect(now().waiting).toEqual(["a layer added"]);
    await world.passes();
    expect(await done).toEqual([]);
    expect(recipes()).toEqual(["wash/brushed"]);
    expect(now().waiting).toEqual([]);
  });

  it("are kept in order while the server is away, and later ones refer to them", async () => {
    world.up = false;
    void session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    session.edit((job) => ({
      ...job,
      zones: job.zones.map((z) => ({ ...z, layers: z.layers.map((x) => ({ ...x, coats: 3 })) })),
    }));
    void session.decide("a layer added", stackEdit("top", [put("primer", "n1")], "n2"));
    await world.passes();
    expect(now().saveState).toBe("waiting");
    expect(now().stale).toBe(true);
    expect(recipes()).toEqual(["primer/", "wash/"]);

    // The tab is closed and opened again when the server is back: nothing is missing.
    world.up = true;
    world.timers = [];
    await opened();
    await world.passes(3000);
    expect(recipes()).toEqual(["primer/brushed", "wash/brushed"]);
    expect(now().job.zones[0]?.layers[1]?.coats).toBe(3);
    await world.passes(3000);
    expect(world.job.zones[0]?.layers.map((x) => x.recipe)).toEqual(["primer", "wash"]);
    expect(now().saveState).toBe("saved");
    expect(world.held).toBeNull();
  });

  it("that are refused stand beside the job with what was entered, and the rest goes on", async () => {
    world.refuses = "There is no recipe called 'moonlight'.";
    const done = session.decide("a layer added", stackEdit("top", [put("moonlight")], "n1"));
    rename("Shelf");
    await world.passes(500);
    expect(await done).toBeNull();
    expect(now().refused.map((r) => [r.label, r.says])).toEqual([["a layer added", world.refuses]]);
    expect(now().job.name).toBe("Shelf");
    expect(recipes()).toEqual([]);
    await world.passes(500);
    expect(now().saveState).toBe("saved");

    // The tab is closed: what was refused is there with what was entered.
    world.timers = [];
    await opened();
    expect(now().refused.map((r) => r.label)).toEqual(["a layer added"]);
    expect(session.isDone()).toBe(false);
    world.refuses = "";
    const [refusal] = now().refused;
    if (refusal) session.tryAgain(refusal);
    await world.passes(500);
    expect(recipes()).toEqual(["moonlight/brushed"]);
    expect(now().refused).toEqual([]);
  });
});

describe("undo and redo", () => {
  it("go step by step, each with its name, server or none", async () => {
    rename("Shelf");
    await world.passes(2000);
    world.up = false;
    void session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    await world.passes(100);
    expect(now().undo).toBe("a layer added");
    session.undo();
    expect(recipes()).toEqual([]);
    expect(now().undo).toBe("a name");
    session.undo();
    expect(now().job.name).toBe("Rack");
    expect(now().undo).toBeNull();
    session.redo();
    session.redo();
    expect(now().job.name).toBe("Shelf");
    expect(recipes()).toEqual(["wash/"]);
    expect(now().redo).toBeNull();
    await world.passes();
    world.up = true;
    await world.passes(5000);
    expect(recipes()).toEqual(["wash/brushed"]);
    await world.passes(500);
    expect(now().saveState).toBe("saved");
  });

  it("forget what was undone once something else is done", async () => {
    rename("Shelf");
    session.undo();
    await world.passes(2000);
    rename("Bench");
    expect(now().redo).toBeNull();
    session.undo();
    expect(now().job.name).toBe("Rack");
  });

  it("take typing that goes on as one step", async () => {
    for (const name of ["S", "Sh", "She"]) {
      rename(name);
      world.time += 200;
    }
    session.undo();
    expect(now().job.name).toBe("Rack");
    rename("A");
    world.time += 5000;
    rename("B");
    session.undo();
    expect(now().job.name).toBe("A");
  });

  it("ignore an answer to what was undone meanwhile", async () => {
    world.hold = [];
    void session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    session.undo();
    const go = world.hold;
    world.hold = null;
    for (const answer of go) answer();
    await world.passes(1000);
    expect(recipes()).toEqual([]);
    expect(now().waiting).toEqual([]);
  });

  it("asked again because no answer came are the same step", async () => {
    world.revision = 3;
    world.job = { ...START, name: "Later" };
    await opened();
    world.up = false;
    session.undo();
    await world.passes();
    session.undo();
    await world.passes();
    world.up = true;
    session.undo();
    await world.passes();
    expect(new Set(world.stepKeys).size).toBe(1);
    expect(now().job.name).toBe("Rack");
  });

  it("ask the server for what was done before the page was opened", async () => {
    world.revision = 3;
    world.job = { ...START, name: "Later" };
    await opened();
    expect(now().undo).toBe("");
    session.undo();
    await world.passes();
    expect(now().job.name).toBe("Rack");
  });
});

describe("saving", () => {
  it("is tried again until the server answers, and says so", async () => {
    world.up = false;
    rename("Shelf");
    await world.passes(500);
    expect(now().saveState).toBe("waiting");
    expect(now().says).toContain("not answering");
    expect(world.held?.base.name).toBe("Shelf");
    world.up = true;
    await world.passes(2100);
    expect(now().saveState).toBe("saved");
    expect(now().says).toBe("");
  });

  it("is not met by itself when the answer was lost, also not after the page was closed", async () => {
    world.answers = false;
    rename("A");
    await world.passes(500);
    expect(now().saveState).toBe("waiting");
    expect(world.held?.sent?.job.name).toBe("A");
    world.answers = true;
    world.timers = []; // the page is closed
    session = new JobSession(world);
    const seen: boolean[] = [];
    session.subscribe(() => seen.push(session.isDone()));
    await session.open();
    expect(seen).not.toContain(true);
    rename("B");
    await world.passes(3000);
    expect(world.saves.map((j) => j.name)).toEqual(["A", "B"]);
    expect(now().saveState).toBe("saved");
  });

  it("keeps the key of a save before it is on its way", async () => {
    rename("A");
    await world.passes(300);
    world.hold = [];
    await world.passes(200);
    expect(world.held?.sent?.job.name).toBe("A");
  });

  it("is refused with its words, and what is entered next is a save of its own", async () => {
    rename("unfit");
    world.refusesSaves = true;
    await world.passes(500);
    expect(now().saveState).toBe("refused");
    expect(now().says).toBe("That cannot be used.");
    expect(world.held?.base.name).toBe("unfit");
    world.refusesSaves = false;
    rename("fit");
    await world.passes(500);
    expect(world.saves.map((j) => j.name)).toEqual(["fit"]);
    expect(now().saveState).toBe("saved");
  });

  it("says where the browser keeps nothing", async () => {
    world.lasting = false;
    world.up = false;
    rename("A");
    await world.passes(500);
    expect(now().kept).toBe(false);
  });

  it("saves what was edited during a save after it", async () => {
    rename("A");
    await world.passes();
    world.hold = [];
    await world.passes(400);
    rename("B");
    const go = world.hold;
    world.hold = null;
    for (const answer of go) answer();
    await world.passes(500);
    expect(world.saves.map((j) => j.name)).toEqual(["A", "B"]);
    expect(now().saveState).toBe("saved");
  });

  it("loses neither version when the job was changed elsewhere", async () => {
    rename("Mine");
    world.overtaken = true;
    await world.passes(500);
    expect(now().saveState).toBe("changed elsewhere");
    world.up = false;
    session.keepMine();
    await world.passes();
    expect([now().saveState, now().says]).toEqual(["changed elsewhere", "Lumso is not answering."]);
    world.up = true;
    world.overtaken = false;
    world.revision = 7;
    session.keepMine();
    await world.passes(500);
    expect(world.saves.at(-1)?.name).toBe("Mine");
    expect(now().saveState).toBe("saved");

    rename("Mine again");
    world.overtaken = true;
    await world.passes(500);
    world.overtaken = false;
    world.job = { ...START, name: "Theirs" };
    session.takeTheirs();
    await world.passes(500);
    expect(now().job.name).toBe("Theirs");
    expect(world.held).toBeNull();
    expect(now().undo).not.toBe("a name");
  });
});
