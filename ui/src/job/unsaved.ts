import type { Job } from "../api/client";

/** Edits that have not reached the server yet, kept in the browser so that a closed lid loses nothing. */
interface Unsaved {
  revision: number;
  job: Job;
}

const key = (id: string) => `lumso.unsaved.${id}`;

export function keepUnsaved(id: string, revision: number, job: Job): void {
  localStorage.setItem(key(id), JSON.stringify({ revision, job }));
}

export function forgetUnsaved(id: string): void {
  localStorage.removeItem(key(id));
}

/** What was left unsaved of a job, unless it says what `saved` says already. The entries are the server's to fill. */
export function unsavedOf(id: string, saved: Job): Unsaved | null {
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  const unsaved = JSON.parse(text) as Unsaved;
  const said = (job: Job) => JSON.stringify({ ...job, entries: null });
  return said(unsaved.job) === said(saved) ? null : unsaved;
}
