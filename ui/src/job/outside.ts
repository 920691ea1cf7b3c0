import type { QueryClient } from "@tanstack/react-query";
import { answer, api, type Job, NoAnswer, Refused } from "../api/client";
import type { Place } from "../keep/keeping";
import { newId } from "../parts/say";
import { type Kept, type Outside, Overtaken, Unanswered } from "./outer";

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

/** What was kept of a job, also by earlier versions of this page. */
export function keptOf(held: unknown): Kept {
  const kept = held as Partial<Kept> & { revision: number; job?: Job };
  const base = kept.base ?? (kept.job as Job);
  return { version: 3, revision: kept.revision, base, queue: [], sent: null, refused: [], ...without(kept) };
}

function without({ version, job, ...kept }: Partial<Kept> & { job?: Job }): Partial<Kept> {
  return kept;
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
  let sequence = 0;
  return {
    load: () => told(answer(api.GET("/api/jobs/{job_id}", { params: { path } }))),
    edit: (job, edit) => told(answer(api.POST("/api/edits", { body: { job, edit } }))),
    plan: async (job, zone, signal) => {
      sequence += 1;
      const body = { sequence, job, looked_at: zone };
      return (await told(answer(api.POST("/api/plan", { body, signal })))).plan;
    },
    save: async ({ job, revision, key }) => {
      const header = { "If-Match": `"${revision}"`, "Idempotency-Key": key };
      const params = { path, header };
      return listed(await told(answer(api.PUT("/api/jobs/{job_id}", { params, body: job }))));
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
