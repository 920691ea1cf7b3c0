import type { QueryClient } from "@tanstack/react-query";
import { answer, api, type Job, lastsBeyondPage, NoAnswer, Refused } from "../api/client";
import type { Place } from "../keep/keeping";
import { newId } from "../parts/say";
import {
  type Doing,
  type Kept,
  type Outside,
  Overtaken,
  type Queued,
  Unanswered,
  Unfit,
  type Whole,
} from "./outer";
import { diff, named } from "./patch";

/** An answer of the server, told apart: none came, overtaken, or refused in words. */
async function told<T>(reply: Promise<T>): Promise<T> {
  try {
    return await reply;
  } catch (error) {
    if (error instanceof NoAnswer) throw new Unanswered(error.message);
    if (error instanceof Refused && (error.problem.status >= 500 || error.problem.status === 401))
      throw new Unanswered(error.message);
    if (error instanceof Refused && error.problem.status === 412) throw new Overtaken(error.message);
    throw error;
  }
}

/** What earlier versions of this page kept: the job as it was to be saved, what was sent of it, and what waited. */
interface Before {
  version?: 1 | 2 | 3;
  revision: number;
  base?: Job;
  job?: Job;
  queue?: Doing[];
  sent?: Whole | null;
  refused?: { label: string; says: string; entered: Doing }[];
}

/** What was kept of a job, also by earlier versions of this page. */
export function keptOf(held: unknown): Kept {
  if ((held as Kept).version === 4) return held as Kept;
  const { revision, base, job, queue = [], sent = null, refused = [] } = held as Before;
  const keyed = (doing: Doing) => ({ ...doing, key: newId() }) as Queued;
  const now = (base ?? job) as Job;
  const whole = sent ?? { job: now, revision, key: newId() };
  // What was entered after it was sent is a change of its own.
  const patch = diff(whole.job, now);
  const since: Doing[] = patch.length ? [{ kind: "set", label: named(patch), patch }] : [];
  return {
    version: 4,
    revision,
    base: whole.job,
    queue: [...since, ...queue].map(keyed),
    sent: null,
    refused: refused.map((r) => ({ ...r, entered: keyed(r.entered) })),
    whole,
  };
}

const BEFORE = "lumso.unsaved.";

/** What an earlier version of this page kept of a job, in another place; taken from there. */
function keptBefore(id: string): Kept | null {
  try {
    const text = localStorage.getItem(BEFORE + id);
    localStorage.removeItem(BEFORE + id);
    return text ? keptOf(JSON.parse(text)) : null;
  } catch {
    return null;
  }
}

/** The server and this browser, as a job's session sees them. */
export function outsideOf(id: string, client: QueryClient, keeping: Place): Outside {
  const path = { job_id: id };
  const listed = <T>(got: T): T => {
    void client.invalidateQueries({ queryKey: ["jobs"] });
    return got;
  };
  const { store, page, pages } = keeping;
  return {
    load: (zone) => {
      const params = { path, query: { looked_at: zone } };
      return told(answer(api.GET("/api/jobs/{job_id}", { params })));
    },
    change: async ({ read, goesOn, key, queue, zone, holds }, signal) => {
      const query = { looked_at: zone, holds };
      if (!queue.length) {
        const params = { path, query: { ...query, read } };
        return told(answer(api.GET("/api/jobs/{job_id}/changes", { params, signal })));
      }
      const params = { path, header: { "Idempotency-Key": key }, query };
      const changes = queue.map((q) =>
        q.kind === "set"
          ? { do: "set" as const, key: q.key, patch: q.patch }
          : { do: "decide" as const, key: q.key, edit: q.edit },
      );
      const body = { read, goes_on: goesOn, changes };
      const asked = { params, body, signal, keepalive: lastsBeyondPage(JSON.stringify(body)) };
      const got = told(answer(api.POST("/api/jobs/{job_id}/changes", asked)));
      return listed(
        await got.catch((error: Error) => {
          throw error instanceof Refused && error.problem.status === 422 ? new Unfit(error.message) : error;
        }),
      );
    },
    save: async ({ job, revision, key }) => {
      const header = { "If-Match": `"${revision}"`, "Idempotency-Key": key };
      const params = { path, header };
      listed(await told(answer(api.PUT("/api/jobs/{job_id}", { params, body: job }))));
      return told(answer(api.GET("/api/jobs/{job_id}", { params: { path } })));
    },
    step: async (way, revision, key) => {
      const header = { "If-Match": `"${revision}"`, "Idempotency-Key": key };
      const params = { path, header };
      return listed(await told(answer(api.POST(`/api/jobs/{job_id}/${way}`, { params }))));
    },
    kept: async () => {
      const held = await store.adopt(id, page, await pages.alive()).catch(() => null);
      return held ? keptOf(held.kept) : keptBefore(id);
    },
    keep: async (kept) => {
      try {
        if (kept) await store.putDraft({ job: id, page, at: Date.now(), kept });
        else await store.dropDraft(id, page);
        return keeping.lasting;
      } catch {
        return kept === null;
      }
    },
    newKey: newId,
    now: () => Date.now(),
    later: (ms, run) => {
      const timer = window.setTimeout(run, ms);
      return () => window.clearTimeout(timer);
    },
  };
}
