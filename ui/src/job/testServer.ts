import type { Edit, Job, JobChanged, JobReply, Layer, Plan, Taken } from "../api/client";
import { shownWith } from "./edits";
import { type Asking, Overtaken } from "./outer";
import { diff, type Patch, patched } from "./patch";

const planOf = (job: Job): Plan => ({ of: job.name }) as unknown as Plan;

/** What a patch speaks of, as text: one place lies in another where it begins with it. */
const places = (patch: Patch) => patch.map((step) => JSON.stringify(step.at).slice(0, -1));
const meet = (a: string[], b: string[]) => a.some((x) => b.some((y) => x.startsWith(y) || y.startsWith(x)));

/** A server for one job, for tests: revisions, keys, what others did, and what it refuses. */
export class TestServer {
  versions: Job[] = [];
  /** What it was asked, and did. */
  trips: Asking[] = [];
  made: Edit[] = [];
  refuses = "";
  private done = new Map<string, { read: number; made: number }>();

  constructor(job: Job) {
    this.versions.push(job);
  }

  get revision(): number {
    return this.versions.length;
  }

  get job(): Job {
    return this.at(this.revision);
  }

  at = (revision: number): Job => this.versions[revision - 1] as Job;

  reply(): JobReply {
    const { job, revision } = this;
    const undo = { can_undo: revision > 1, can_redo: false };
    return { id: "x", revision, job, plan: planOf(job), plan_id: `p${revision}`, ...undo } as JobReply;
  }

  save(job: Job, read: number, key: string): number {
    const before = this.done.get(key);
    if (before) return before.made;
    if (read !== this.revision) throw new Overtaken("changed elsewhere");
    this.versions.push(job);
    this.done.set(key, { read, made: this.revision });
    return this.revision;
  }

  private after(job: Job, edit: Edit): Job {
    const laid = (x: Layer) => ({ ...x, technique: x.technique || "brushed" });
    const shown = shownWith(job, edit);
    return { ...shown, zones: shown.zones.map((z) => ({ ...z, layers: z.layers.map(laid) })) };
  }

  change(asking: Asking): JobChanged {
    this.trips.push(asking);
    const before = this.done.get(asking.key);
    const since = this.at(asking.read);
    const from = before ? since : this.job;
    const came = diff(since, from);
    const sets = asking.queue.flatMap((q) => (q.kind === "set" ? places(q.patch) : ['["zones"']));
    if (meet(sets, places(came))) throw new Overtaken("changed elsewhere");
    let now = from;
    const answers = asking.queue.map((q) => {
      const old = now;
      if (q.kind === "edit" && this.refuses)
        return { key: q.key, patch: [], taken: [] as Taken[], refused: { detail: this.refuses } };
      now = q.kind === "set" ? patched(old, q.patch) : this.after(old, q.edit);
      if (q.kind === "edit" && !before) this.made.push(q.edit);
      return { key: q.key, patch: diff(old, now), taken: [] as Taken[], refused: null };
    });
    if (!before && diff(from, now).length) {
      this.versions.push(now);
      this.done.set(asking.key, { read: asking.read, made: this.revision });
    }
    const { revision, job } = this;
    const plan = { plan_id: `p${revision}`, plan: null, whole: planOf(job), trouble: "" };
    const undo = { can_undo: revision > 1, can_redo: false, gap: 0 };
    const after = diff(now, job);
    return {
      id: "x",
      revision,
      saved_at: "",
      came,
      answers,
      after,
      ...plan,
      ...undo,
    } as unknown as JobChanged;
  }
}
