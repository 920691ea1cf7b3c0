import type { QueryClient } from "@tanstack/react-query";
import { answer, api, type Job, NoAnswer, Refused } from "../api/client";
import { type Kept, type Outside, Overtaken, Unanswered } from "./session";

const SMALL = 60_000;
/** Bytes that a browser still sends when its page is closed. */

/** An answer of the server, told apart: none came, overtaken, or refused in words. */
async function told<T>(reply: Promise<T>): Promise<T> {
  try {
    return await reply;
  } catch (error) {
    if (error instanceof NoAnswer) throw new Unanswered(error.message);
    if (error instanceof Refused && error.problem.status >= 500) throw new Unanswered(error.message);
    if (error instanceof Refused && error.problem.status === 412) throw new Overtaken(error.message);
    throw error;
  }
}

const key = (id: string) => `lumso.unsaved.${id}`;

/** What was kept of a job in this browser, also by earlier versions of this page. */
function kept(id: string): Kept | null {
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  const held = JSON.parse(text) as Kept | { revision: number; job: Job };
  return "version" in held ? held : { version: 2, revision: held.revision, base: held.job, queue: [] };
}

/** The server and this browser, as a job's session sees them. */
export function outsideOf(id: string, client: QueryClient): Outside {
  const path = { job_id: id };
  const listed = <T>(got: T): T => {
    void client.invalidateQueries({ queryKey: ["jobs"] });
    return got;
  };
  let sequence = 0;
  return {
    load: () => told(answer(api.GET("/api/jobs/{job_id}", { params: { path } }))),
    edit: (job, edit) => told(answer(api.POST("/api/edits", { body: { job, edit } }))),
    plan: async (job, zone, signal) => {
      sequence += 1;
      const body = { sequence, job, looked_at: zone };
      return (await told(answer(api.POST("/api/plan", { body, signal })))).plan;
    },
    save: async (job, revision) => {
      const params = { path, header: { "If-Match": `"${revision}"` } };
      const keepalive = new Blob([JSON.stringify(job)]).size < SMALL;
      return listed(await told(answer(api.PUT("/api/jobs/{job_id}", { params, body: job, keepalive }))));
    },
    step: async (way, revision) => {
      const params = { path, header: { "If-Match": `"${revision}"` } };
      return listed(await told(answer(api.POST(`/api/jobs/{job_id}/${way}`, { params }))));
    },
    kept: () => kept(id),
    keep: (what) =>
      what ? localStorage.setItem(key(id), JSON.stringify(what)) : localStorage.removeItem(key(id)),
    now: () => Date.now(),
    later: (ms, run) => {
      const timer = window.setTimeout(run, ms);
      return () => window.clearTimeout(timer);
    },
  };
}
