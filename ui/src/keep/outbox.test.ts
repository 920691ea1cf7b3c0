import { describe, expect, it } from "vitest";
import { type Job, type JobChanged, type JobReply, NoAnswer } from "../api/client";
import { type Asking, Overtaken, Unanswered } from "../job/outer";
import { diff, patched } from "../job/patch";
import { JobSession } from "../job/session";
import editable from "./editable.json";
import type { Edit } from "./edits";
import { NotTaken, Outbox } from "./outbox";
import { Passing, type Store } from "./store";

/** Numbers that look random and are the same every time. */
function dice(seed: number) {
  let state = seed + 1;
  return (sides: number) => {
    state = (state * 48271) % 2147483647;
    return state % sides;
  };
}

/** Time that passes when it is told to. */
class Clock {
  now = 0;
  private timers: { at: number; run: () => void }[] = [];
  later = (ms: number, run: () => void) => {
    const timer = { at: this.now + ms, run };
    this.timers.push(timer);
    return () => {
      this.timers = this.timers.filter((t) => t !== timer);
    };
  };
  async passes(ms: number) {
    this.now += ms;
    for (let round = 0; round < 40; round += 1) {
      const due = this.timers.filter((t) => t.at <= this.now);
      this.timers = this.timers.filter((t) => t.at > this.now);
      for (const timer of due) timer.run();
      for (let i = 0; i < 8; i += 1) await Promise.resolve();
    }
  }
}

/** The rules of the server: revisions that are never used twice, keys under which a thing is done once. */
class Server {
  up = true;
  /** Answers get lost: what was asked is done all the same. */
  loses = false;
  docs = new Map<string, { text: string; revision: number }>();
  /** Everything that was ever saved. */
  log: string[] = [];
  /** Every version of every document, by its revision. */
  versions = new Map<number, string | null>();
  keys = new Map<string, number>();
  private last = 0;

  take(doc: string, text: string | null, read: number, key: string): number {
    if (!this.up) throw new NoAnswer();
    const done = this.keys.get(key);
    const revision = done ?? this.save(doc, text, read, key);
    if (this.loses) throw new NoAnswer();
    return revision;
  }

  save(doc: string, text: string | null, read: number, key: string): number {
    const head = this.docs.get(doc)?.revision ?? 0;
    if (text?.includes("unfit")) throw new NotTaken("That cannot be used.", null, new Error("unfit"));
    if (head !== read) throw new NotTaken("This was changed elsewhere.", head, new Error("elsewhere"));
    this.last += 1;
    this.keys.set(key, this.last);
    this.versions.set(this.last, text);
    if (text === null) this.docs.delete(doc);
    else this.docs.set(doc, { text, revision: this.last });
    this.log.push(`${doc} ${text}`);
    return this.last;
  }
}

let keys = 0;
const clock = new Clock();

/** A page of the browser: its outbox on the browser's store. */
function page(name: string, server: Server, store: Store, living: Set<string>) {
  living.add(name);
  const outbox = new Outbox(
    store,
    {
      send: async (edit: Edit) => {
        await Promise.resolve();
        if (!living.has(name)) return new Promise<number>(() => undefined); // the page is gone: nobody hears it
        const text = edit.body === null ? null : (edit.body as { text: string }).text;
        const revision = server.take(edit.doc, text, edit.read ?? -1, edit.key);
        if (!living.has(name)) return new Promise<number>(() => undefined);
        return revision;
      },
      alive: async () => living,
      saved: () => undefined,
      tell: () => undefined,
      now: () => clock.now,
      later: (ms, run) => clock.later(ms, () => living.has(name) && run()),
      newKey: () => `key ${++keys}`,
    },
    name,
  );
  const put = (doc: string, text: string | null, read: number, afterMs = 0) =>
    outbox.put(
      {
        doc,
        label: doc,
        method: text === null ? "DELETE" : "PUT",
        path: `/api/${doc}`,
        body: text === null ? null : { text },
        read,
      },
      afterMs,
    );
  return { name, outbox, put };
}

const alone = (store: Store = new Passing()) => {
  const server = new Server();
  const living = new Set<string>();
  return { server, living, store, ...page("a", server, store, living) };
};

describe("an edit of a document", () => {
  it("is kept at once, sent, and gone from here when it is saved", async () => {
    const { put, outbox, server } = alone();
    const outcome = put("kit/a", "one", 0);
    await Promise.resolve();
    expect(outbox.edits.map((e) => e.doc)).toEqual(["kit/a"]);
    expect(await outcome).toBe("saved");
    expect(outbox.edits).toEqual([]);
    expect(server.log).toEqual(["kit/a one"]);
  });

  it("is made from what this page saved, also before it is seen to be there", async () => {
    const { put, server } = alone();
    await put("kit/a", "one", 0);
    await put("kit/a", "two", 0);
    expect(server.docs.get("kit/a")?.text).toBe("two");
  });

  it("that was saved is shown until the server is seen to have it, and no longer", async () => {
    const { put, outbox, server } = alone();
    await put("kit/a", "one", 0);
    const revision = server.docs.get("kit/a")?.revision ?? 0;
    outbox.seen("kit/a", revision - 1);
    expect(outbox.saved.get("kit/a")?.body).toEqual({ text: "one" });
    outbox.seen("kit/a", revision);
    expect(outbox.saved.has("kit/a")).toBe(false);
  });

  it("waits while it is typed, and only the last of it is sent", async () => {
    const { put, outbox, server } = alone();
    for (const text of ["o", "on", "one"]) {
      void put("kit/a", text, 0, 400);
      await clock.passes(100);
      expect(outbox.edits.map((e) => (e.body as { text: string }).text)).toEqual([text]);
    }
    expect(server.log).toEqual([]);
    await clock.passes(400);
    expect(server.log).toEqual(["kit/a one"]);
  });

  it("that a page is left with is sent at once, and once", async () => {
    const { put, outbox, server, living, store } = alone();
    void put("kit/a", "one", 0, 400);
    await clock.passes(10);
    outbox.hurry();
    await clock.passes(0);
    expect(server.log).toEqual(["kit/a one"]);
    living.delete("a");
    const next = page("b", server, store, living);
    await next.outbox.look();
    await clock.passes(0);
    expect(next.outbox.edits).toEqual([]);
    expect(server.log).toEqual(["kit/a one"]);
  });

  it("is kept while no answer comes, and the next is made from what it came to", async () => {
    const { put, outbox, server } = alone();
    server.loses = true;
    expect(await put("kit/a", "one", 0)).toBe("kept");
    const second = put("kit/a", "two", 0);
    await clock.passes(0);
    expect(outbox.edits.map((e) => [e.tried, e.read])).toEqual([
      [true, 0],
      [false, null],
    ]);
    server.loses = false;
    await clock.passes(2000);
    expect(await second).toBe("saved");
    expect(server.log).toEqual(["kit/a one", "kit/a two"]);
    expect(outbox.edits).toEqual([]);
  });

  it("that was never sent gives way to a newer one", async () => {
    const { put, outbox, server } = alone();
    server.up = false;
    await put("kit/b", "before", 0); // sent, and not answered: from here on it may be saved
    const first = put("kit/a", "one", 0, 400);
    void put("kit/a", "two", 0, 400);
    await clock.passes(0);
    expect(await first).toBe("kept");
    expect(outbox.edits.map((e) => e.doc)).toEqual(["kit/b", "kit/a"]);
  });

  it("that is refused is set aside with what was entered, and the rest goes on", async () => {
    const { put, outbox, server } = alone();
    await expect(put("kit/a", "unfit", 0)).rejects.toThrow("unfit");
    expect(await put("kit/b", "fine", 0)).toBe("saved");
    expect(outbox.edits.map((e) => [e.doc, e.says, (e.body as { text: string }).text])).toEqual([
      ["kit/a", "That cannot be used.", "unfit"],
    ]);
    expect(await put("kit/a", "mended", 0)).toBe("saved");
    expect(outbox.edits).toEqual([]);
    expect(server.log).toEqual(["kit/b fine", "kit/a mended"]);
  });

  it("that is refused after a newer one was made gives way to it, made from the same", async () => {
    const { put, outbox, server } = alone();
    const start = server.save("kit/a", "start", 0, "start");
    server.up = false;
    await put("kit/a", "unfit", start);
    const second = put("kit/a", "mended", start);
    server.up = true;
    await clock.passes(2000);
    expect(await second).toBe("saved");
    expect(server.log).toEqual(["kit/a start", "kit/a mended"]);
    expect(outbox.edits).toEqual([]);
  });

  it("that is typed is not sent early because another page speaks", async () => {
    const { put, outbox, server } = alone();
    void put("kit/a", "on", 0, 400);
    await clock.passes(100);
    await outbox.look();
    await clock.passes(100);
    expect(server.log).toEqual([]);
    await clock.passes(300);
    expect(server.log).toEqual(["kit/a on"]);
  });

  it("that was changed elsewhere goes on, or is let go, as somebody says", async () => {
    for (const [choice, text] of [
      ["again", "mine, newer"],
      ["letGo", "theirs"],
    ] as const) {
      const { put, outbox, server } = alone();
      server.save("kit/a", "theirs", 0, "elsewhere");
      await expect(put("kit/a", "mine", 0)).rejects.toThrow("elsewhere");
      void put("kit/a", "mine, newer", 0);
      await clock.passes(0);
      expect(server.docs.get("kit/a")?.text).toBe("theirs");
      const [edit] = outbox.edits;
      expect(edit?.says).toContain("elsewhere");
      if (edit) await outbox[choice](edit);
      await clock.passes(0);
      expect(server.docs.get("kit/a")?.text).toBe(text);
      expect(outbox.edits).toEqual([]);
    }
  });

  it("of a page that lives is left to it, of one that is gone it is sent by another", async () => {
    const { put, server, living, store } = alone();
    server.up = false;
    await put("kit/a", "one", 0);
    server.up = true;
    const other = page("b", server, store, living);
    await other.outbox.look();
    await clock.passes(0);
    expect(server.log).toEqual([]);
    living.delete("a");
    await other.outbox.look();
    await clock.passes(0);
    expect(server.log).toEqual(["kit/a one"]);
  });

  it("goes on where the browser keeps nothing, and says so", async () => {
    const full = new Passing();
    let room = true;
    const change = full.change;
    full.change = async (run) => {
      if (!room) throw new Error("QuotaExceededError");
      return change(run);
    };
    const { put, outbox, server } = alone(full);
    server.up = false;
    await put("kit/a", "one", 0);
    room = false;
    await put("kit/b", "two", 0);
    expect(outbox.lasting).toBe(false);
    server.up = true;
    await clock.passes(2000);
    expect([...server.log].sort()).toEqual(["kit/a one", "kit/b two"]);
  });
});

/** A job as the server has it, seen through the rules that all documents have. */
function jobOn(server: Server, store: Store, name: string, living: Set<string>): JobSession {
  const doc = "job/x";
  const told = async <T>(ask: () => T): Promise<T> => {
    await Promise.resolve();
    if (!living.has(name)) return new Promise<T>(() => undefined);
    try {
      const got = ask();
      return living.has(name) ? got : new Promise<T>(() => undefined);
    } catch (error) {
      if (error instanceof NoAnswer) throw new Unanswered(error.message);
      if (error instanceof NotTaken && error.head !== null) throw new Overtaken(error.message);
      throw error;
    }
  };
  const reply = () => {
    if (!server.up) throw new NoAnswer();
    const held = server.docs.get(doc);
    const job = JSON.parse(held?.text ?? "{}") as Job;
    const revision = held?.revision ?? 0;
    return { revision, job, plan: {}, plan_id: "", can_undo: false, can_redo: false } as unknown as JobReply;
  };
  /** What was done since a revision was read is made to it; the same touched elsewhere meanwhile is overtaken. */
  const change = ({ read, queue, key }: Asking) => {
    const head = reply();
    const since = JSON.parse(server.versions.get(read) ?? "{}") as Job;
    const done = server.keys.has(key);
    const from = done ? since : head.job;
    if (queue.length && from.name !== since.name) throw new Overtaken("changed elsewhere");
    let now = from;
    const answers = queue.map((q) => {
      const old = now;
      now = q.kind === "set" ? patched(old, q.patch) : old;
      return { key: q.key, patch: diff(old, now), taken: [], refused: null };
    });
    if (queue.length) server.take(doc, JSON.stringify(now), head.revision, key);
    if (server.loses) throw new NoAnswer();
    const { job, ...is } = reply();
    return { ...is, came: diff(since, from), answers, after: diff(now, job), whole: is.plan, trouble: "" };
  };
  const session = new JobSession({
    load: () => told(reply),
    change: (asking) => told(() => change(asking) as unknown as JobChanged),
    save: ({ job, revision, key }) =>
      told(() => {
        server.take(doc, JSON.stringify(job), revision, key);
        return reply();
      }),
    step: () => told(reply),
    kept: async () => ((await store.adopt("x", name, living))?.kept ?? null) as never,
    keep: async (kept) => {
      if (!living.has(name)) return true;
      if (kept) await store.putDraft({ job: "x", page: name, at: clock.now, kept: structuredClone(kept) });
      else await store.dropDraft("x", name);
      return true;
    },
    newKey: () => `key ${++keys}`,
    now: () => clock.now,
    later: (ms, run) => clock.later(ms, () => living.has(name) && run()),
  });
  void session.open();
  return session;
}

describe("whatever stops, reloads or gets lost", () => {
  const kinds = [...new Set(Object.values(editable))].sort();

  it.each(kinds.flatMap((kind) => [0, 1, 2, 3, 4, 5, 6, 7].map((seed) => [kind, seed] as const)))(
    "every edit of a %s ends saved, or refused with its text (%i)",
    async (kind, seed) => {
      const roll = dice(seed * 7919 + kind.length);
      const server = new Server();
      const store = new Passing();
      const living = new Set<string>();
      server.save(`${kind}/x`, kind === "job" ? '{"name":"start","zones":[]}' : "start", 0, "start");
      let pages = 0;
      const open = () => {
        const name = `page ${seed} ${++pages}`;
        const made = page(name, server, store, living);
        const session = kind === "job" ? jobOn(server, store, name, living) : null;
        void made.outbox.look();
        return { ...made, session };
      };
      let here = open();
      await clock.passes(0);
      const entered: string[] = [];
      const savedSaid: string[] = [];
      const type = (text: string) => {
        if (here.session && !here.session.shown()) return;
        entered.push(text);
        if (here.session) {
          here.session.edit((job) => ({ ...job, name: text }));
          return;
        }
        const read = server.docs.get(`${kind}/x`)?.revision ?? 0;
        here.put(`${kind}/x`, text, read, roll(2) * 400).then(
          (outcome) => outcome === "saved" && savedSaid.push(text),
          () => undefined,
        );
      };
      for (let step = 0; step < 40; step += 1) {
        switch (roll(7)) {
          case 0:
            server.up = !server.up;
            break;
          case 1:
            server.loses = !server.loses;
            break;
          case 2: {
            // The page is closed, at any moment, and another opened in its place.
            living.delete(here.name);
            here = open();
            await clock.passes(roll(2) * 10);
            break;
          }
          default:
            type(`text ${step}`);
            await clock.passes([0, 100, 500, 2500][roll(4)] ?? 0);
        }
      }
      server.up = true;
      server.loses = false;
      living.delete(here.name);
      here = open();
      for (let i = 0; i < 8; i += 1) await clock.passes(3000);

      const head = server.docs.get(`${kind}/x`)?.text ?? "";
      const last = entered.at(-1) ?? "start";
      expect(server.log.filter((line, i) => server.log.indexOf(line) !== i)).toEqual([]);
      for (const text of savedSaid) expect(server.log).toContain(`${kind}/x ${text}`);
      expect(here.outbox.edits).toEqual([]);
      expect(kind === "job" ? (JSON.parse(head) as Job).name : head).toBe(last);
      expect(await store.drafts()).toEqual([]);
    },
  );

  it("done on one page stays done on the other when it was sent, and not where it was refused and let go", async () => {
    const server = new Server();
    const store = new Passing();
    const living = new Set<string>();
    const [a, b] = [page("a", server, store, living), page("b", server, store, living)];
    server.up = false;
    void a.put("event/1", "poured", 0);
    void a.put("event/2", "unfit", 0).catch(() => undefined);
    await clock.passes(100);
    await b.outbox.look();
    expect(b.outbox.edits.map((e) => e.doc)).toEqual(["event/1", "event/2"]);
    server.up = true;
    await clock.passes(3000);
    await b.outbox.look();
    expect(b.outbox.edits.map((e) => e.doc)).toEqual(["event/2"]);
    for (const edit of b.outbox.edits) await b.outbox.letGo(edit);
    await b.outbox.look();
    expect([...b.outbox.saved.keys()]).toEqual(["event/1"]);
    expect(b.outbox.saved.get("event/1")?.body).toEqual({ text: "poured" });
  });

  it("two pages lose neither edit: one is saved, the other listed with its text", async () => {
    for (let seed = 0; seed < 20; seed += 1) {
      const roll = dice(seed);
      const server = new Server();
      const store = new Passing();
      const living = new Set<string>();
      const start = server.save("kit/a", "start", 0, "start");
      const [a, b] = [page("a", server, store, living), page("b", server, store, living)];
      server.up = roll(2) === 0;
      void a.put("kit/a", "from a", start, roll(2) * 400).catch(() => undefined);
      await clock.passes(roll(3) * 200);
      void b.put("kit/a", "from b", start, roll(2) * 400).catch(() => undefined);
      await clock.passes(roll(3) * 200);
      server.up = true;
      for (let i = 0; i < 4; i += 1) await clock.passes(3000);
      await a.outbox.look();
      const listed = a.outbox.edits.map((e) => (e.body as { text: string }).text);
      const saved = server.log.map((line) => line.replace("kit/a ", ""));
      expect([...saved, ...listed].sort()).toEqual(["from a", "from b", "start"]);
      for (const edit of a.outbox.edits) expect(edit.says).toContain("elsewhere");
    }
  });
});
