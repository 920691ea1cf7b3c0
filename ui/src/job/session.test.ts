import { beforeEach, describe, expect, it } from "vitest";
import type { Job, JobReply } from "../api/client";
import { stackEdit } from "./edits";
import { type Asking, type Kept, type Outside, Overtaken, Unanswered, Unfit, type Whole } from "./outer";
import { keptOf } from "./outside";
import { JobSession } from "./session";
import { TestServer } from "./testServer";

const put = (recipe: string, above = "") =>
  ({ do: "insert", above, recipe, technique: "", wait_h: null }) as const;
const START = {
  name: "Rack",
  zones: [{ id: "top", name: "Top", ground: "pine", prep: [], accepted: [], finish: "", layers: [] }],
  entries: { recipes: [] },
} as unknown as Job;

/** A server that can be stopped, and a browser that keeps things: what a session sees of the world. */
class World implements Outside {
  server = new TestServer(START);
  up = true;
  /** Whether what is done is answered: a server may be gone before it says so. */
  answers = true;
  overtaken = false;
  unfit = "";
  held: Kept | null = null;
  time = 0;
  hold: (() => void)[] | null = null;
  timers: { at: number; run: () => void }[] = [];

  private async answer<T>(make: () => T): Promise<T> {
    if (this.hold) await new Promise<void>((go) => this.hold?.push(go));
    if (!this.up) throw new Unanswered("Lumso is not answering.");
    const made = make();
    if (!this.answers) throw new Unanswered("Lumso is not answering.");
    return made;
  }
  /** What was asked and waits is answered. */
  goOn() {
    const waits = this.hold ?? [];
    this.hold = null;
    for (const go of waits) go();
  }
  load = () => this.answer(() => this.server.reply());
  change = (asking: Asking) =>
    this.answer(() => {
      if (this.overtaken) throw new Overtaken("changed elsewhere");
      if (this.unfit && JSON.stringify(asking.queue).includes(this.unfit))
        throw new Unfit("That cannot be used.");
      return this.server.change(asking);
    });
  save = ({ job, revision, key }: Whole) =>
    this.answer(() => {
      this.server.save(job, revision, key);
      return this.server.reply();
    });
  stepKeys: string[] = [];
  step = (_way: "undo" | "redo", _: number, key: string) => {
    this.stepKeys.push(key);
    return this.answer(() => ({ ...this.server.reply(), revision: 1, job: START }) as JobReply);
  };
  /** The names that revisions were saved with, the first left out. */
  get names() {
    return this.server.versions.slice(1).map((j) => j.name);
  }
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
      for (let i = 0; i < 8; i += 1) await Promise.resolve();
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
  it("show at once, and one trip saves and plans them", async () => {
    rename("Shelf");
    expect(now().job.name).toBe("Shelf");
    expect([now().saveState, now().stale]).toEqual(["saving", true]);
    await world.passes();
    expect(world.names).toEqual(["Shelf"]);
    expect(world.server.trips.length).toBe(1);
    expect(now().plan).toEqual({ of: "Shelf" });
    expect([now().saveState, now().stale]).toEqual(["saved", false]);
    expect(world.held).toBeNull();
  });

  it("that come while one is on its way go up together, typing as its last word", async () => {
    world.hold = [];
    rename("A");
    rename("B");
    rename("C");
    session.edit((job) => ({ ...job, note: "for Ada" }));
    world.goOn();
    await world.passes();
    expect(world.names).toEqual(["A", "C"]);
    expect(world.server.trips.map((t) => t.queue.length)).toEqual([1, 2]);
    expect(now().stale).toBe(false);
  });

  it("that say nothing new are no edits", async () => {
    rename("Rack");
    expect(now().undo).toBeNull();
    await world.passes(400);
    expect(world.names).toEqual([]);
  });

  it("that cannot even be read are found among others, and stand beside the job", async () => {
    world.up = false;
    rename("Shelf");
    session.edit((job) => ({ ...job, note: "unreadable" }));
    void session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    await world.passes();
    world.unfit = "unreadable";
    world.up = true;
    await world.passes(3000);
    expect(now().refused.map((r) => r.says)).toEqual(["That cannot be used."]);
    expect([now().job.name, now().saveState]).toEqual(["Shelf", "saved"]);
    expect(recipes()).toEqual(["wash/brushed"]);
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
    expect(world.server.job.zones[0]?.layers.map((x) => x.recipe)).toEqual(["primer", "wash"]);
    expect(now().saveState).toBe("saved");
    expect(world.held).toBeNull();
  });

  it("that are refused stand beside the job with what was entered, and the rest goes on", async () => {
    world.server.refuses = "There is no recipe called 'moonlight'.";
    const done = session.decide("a layer added", stackEdit("top", [put("moonlight")], "n1"));
    rename("Shelf");
    await world.passes(500);
    expect(await done).toBeNull();
    expect(now().refused.map((r) => [r.label, r.says])).toEqual([["a layer added", world.server.refuses]]);
    expect(now().job.name).toBe("Shelf");
    expect(recipes()).toEqual([]);
    await world.passes(500);
    expect(now().saveState).toBe("saved");

    // The tab is closed: what was refused is there with what was entered.
    world.timers = [];
    await opened();
    expect(now().refused.map((r) => r.label)).toEqual(["a layer added"]);
    expect(session.isDone()).toBe(false);
    world.server.refuses = "";
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
    expect(recipes()).toEqual([]);
    world.goOn();
    await world.passes(1000);
    expect(recipes()).toEqual([]);
    expect(now().waiting).toEqual([]);
    expect(world.server.job.zones[0]?.layers).toEqual([]);
    session.redo();
    await world.passes(1000);
    expect(recipes()).toEqual(["wash/brushed"]);
    expect([now().undo, now().redo]).toEqual(["a layer added", null]);
  });

  it("take back what was done here, and leave what others did meanwhile", async () => {
    rename("Shelf");
    await world.passes();
    void session.decide("a layer added", stackEdit("top", [put("wash")], "n1"));
    await world.passes();
    const { server } = world;
    server.save({ ...server.job, note: "by Ben" }, server.revision, "ben");
    session.heard(server.revision);
    await world.passes();
    expect(now().job.note).toBe("by Ben");
    session.undo();
    session.undo();
    await world.passes();
    expect([server.job.name, server.job.note, server.job.zones[0]?.layers]).toEqual(["Rack", "by Ben", []]);
  });

  it("pressed twice while nothing is answered end where they say", async () => {
    rename("Shelf");
    world.hold = [];
    session.edit((job) => ({ ...job, note: "n" }));
    session.undo();
    session.redo();
    session.undo();
    session.undo();
    expect([now().job.name, now().job.note]).toEqual(["Rack", undefined]);
    world.goOn();
    await world.passes(100);
    expect([world.server.job.name, world.server.job.note]).toEqual(["Rack", undefined]);
    session.redo();
    session.redo();
    await world.passes(100);
    expect([world.server.job.name, world.server.job.note]).toEqual(["Shelf", "n"]);
  });

  it("asked again because no answer came are the same step", async () => {
    world.server.save({ ...START, name: "Later" }, 1, "a");
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
    world.server.save({ ...START, name: "Later" }, 1, "a");
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
    expect(world.held?.queue.map((q) => q.label)).toEqual(["a name"]);
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
    expect(world.held?.sent?.count).toBe(1);
    world.answers = true;
    world.timers = []; // the page is closed
    session = new JobSession(world);
    const seen: boolean[] = [];
    session.subscribe(() => seen.push(session.isDone()));
    await session.open();
    expect(seen[0]).toBe(false);
    rename("B");
    await world.passes(3000);
    expect(world.names).toEqual(["A", "B"]);
    expect(now().saveState).toBe("saved");
  });

  it("keeps the key of a trip before it is on its way", async () => {
    world.hold = [];
    rename("A");
    await world.passes(200);
    expect(world.held?.sent?.count).toBe(1);
    expect(world.held?.sent?.key).toBeTruthy();
  });

  it("goes on from what an earlier version of this page kept: sent, entered after it, and waiting", async () => {
    const sent = { job: { ...START, name: "A" }, revision: 1, key: "old" };
    const base = { ...START, name: "A", note: "after" } as Job;
    const queue = [{ kind: "edit", label: "a layer added", edit: stackEdit("top", [put("wash")], "n1") }];
    world.held = keptOf({ version: 3, revision: 1, base, queue, sent, refused: [] });
    world.hold = [];
    const opening = opened();
    world.goOn();
    await opening;
    expect([now().job.name, now().job.note]).toEqual(["A", "after"]);
    await world.passes(500);
    expect(world.names).toEqual(["A", "A"]);
    expect([now().job.note, recipes(), now().saveState]).toEqual(["after", ["wash/brushed"], "saved"]);
    expect(world.held).toBeNull();
  });

  it("says where the browser keeps nothing", async () => {
    world.lasting = false;
    world.up = false;
    rename("A");
    await world.passes(500);
    expect(now().kept).toBe(false);
  });

  it("makes to what others did what touches none of it, and shows both where it does", async () => {
    const { server } = world;
    server.save({ ...START, note: "by Ben" }, 1, "ben");
    rename("Mine");
    await world.passes();
    expect([server.job.name, server.job.note, now().job.note]).toEqual(["Mine", "by Ben", "by Ben"]);
    server.save({ ...server.job, name: "Theirs" }, server.revision, "ben 2");
    rename("Mine again");
    await world.passes(500);
    expect(now().saveState).toBe("changed elsewhere");
    expect(now().job.name).toBe("Mine again");
  });

  it("loses neither version when the job was changed elsewhere", async () => {
    world.overtaken = true;
    rename("Mine");
    await world.passes(500);
    expect(now().saveState).toBe("changed elsewhere");
    world.up = false;
    session.keepMine();
    await world.passes();
    expect([now().saveState, now().says]).toEqual(["changed elsewhere", "Lumso is not answering."]);
    world.up = true;
    world.overtaken = false;
    world.server.save({ ...START, note: "theirs" }, 1, "ben");
    session.keepMine();
    await world.passes(500);
    expect([world.server.job.name, world.server.job.note]).toEqual(["Mine", "theirs"]);
    expect(now().saveState).toBe("saved");

    world.overtaken = true;
    rename("Mine again");
    await world.passes(500);
    world.overtaken = false;
    world.server.save({ ...START, name: "Theirs" }, world.server.revision, "ben 2");
    session.takeTheirs();
    await world.passes(500);
    expect(now().job.name).toBe("Theirs");
    expect(world.held).toBeNull();
    expect(now().undo).not.toBe("a name");
  });
});
