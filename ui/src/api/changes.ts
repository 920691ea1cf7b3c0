import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { newId } from "../parts/say";
import {
  answer,
  api,
  type Begin,
  type DeviceLine,
  type FileReply,
  type JobReply,
  NoAnswer,
  type OneCode,
  type Problem,
  Refused,
  type Reply,
  type Restored,
  type Unread,
} from "./client";
import { changed } from "./follows";

/** The same, for changes told elsewhere. */
export const useChangeOf = <In, Out>(change: (given: In) => Promise<Out>) => useChange(change);

/** A change to the workshop that needs an answer, after which all that follows from it is asked for again. */
function useChange<In, Out>(change: (given: In) => Promise<Out>) {
  const client = useQueryClient();
  return useMutation<Out, Error, In>({
    mutationFn: change,
    scope: { id: "workshop" }, // one after the other, in the order they were made
    onSuccess: () => changed(client),
  });
}

const at = <P>(path: P) => ({ params: { path } });

export const useDeleteUnread = () =>
  useChange(({ kind, slug }: Unread) => answer(api.DELETE("/api/unread/{kind}/{slug}", at({ kind, slug }))));

export const useImport = () =>
  useChange(
    (file: {
      name: string;
      text: string;
      on_clash: "ask" | "keep mine" | "take theirs";
    }): Promise<FileReply> => answer(api.POST("/api/import", { body: file })),
  );

type Keyed = { header: { "Idempotency-Key": string } };

/** A new job. Asked again for the same because no answer came, it is made once. */
function useMake<In>(ask: (given: In, params: Keyed) => Reply<JobReply>) {
  const held = useRef({ of: "", key: "" });
  return useChange(async (given: In): Promise<JobReply> => {
    const of = JSON.stringify(given);
    if (held.current.of !== of) held.current = { of, key: newId() };
    const made = await answer(ask(given, { header: { "Idempotency-Key": held.current.key } }));
    held.current = { of: "", key: "" };
    return made;
  });
}

export const useBeginJob = () =>
  useMake((body: Partial<Begin>, params) => api.POST("/api/jobs/start", { params, body }));

export const useCopyJob = () =>
  useMake((id: string, params) =>
    api.POST("/api/jobs/{job_id}/copy", { params: { ...params, path: { job_id: id } } }),
  );

export const useTakeSample = () => useMake((_: "sample", params) => api.POST("/api/jobs/sample", { params }));

export const useTakeJob = () =>
  useMake((body: { name: string; text: string }, params) => api.POST("/api/jobs/file", { params, body }));

export const useMend = () =>
  useChange((id: string) => answer(api.POST("/api/jobs/{job_id}/mend", at({ job_id: id }))));

export const useBringBack = () =>
  useChange((number: number) => answer(api.POST("/api/aside/{number}/back", at({ number }))));

export const useDeleteAside = () =>
  useChange((number: number) => answer(api.DELETE("/api/aside/{number}", at({ number }))));

/** Delete a job for good. Lists of what was put away that are not on the screen are let go of: in one that was held it
 * would flash up, and its going would move another job from under the finger. */
export function useDeleteJob() {
  const client = useQueryClient();
  return useChange(async (id: string) => {
    await answer(api.DELETE("/api/jobs/{job_id}", at({ job_id: id })));
    const listsAway = ({ queryKey: [, , away] }: { queryKey: readonly unknown[] }) => away === true;
    client.removeQueries({ queryKey: ["jobs"], type: "inactive", predicate: listsAway });
  });
}

export const useMakeBackup = () => useChange(() => answer(api.POST("/api/backups")));

/** Go back to a backup: one that Lumso made, by its name, or a file. */
export const useRestore = () =>
  useChange(async (from: string | File): Promise<Restored> => {
    if (typeof from === "string") return answer(api.POST("/api/backups/{name}/restore", at({ name: from })));
    const headers = { "Content-Type": "application/zip" };
    const sent = fetch("/api/restore", { method: "POST", body: from, headers });
    const reply = await sent.catch(() => {
      throw new NoAnswer();
    });
    if (!reply.ok) throw new Refused((await reply.json()) as Problem);
    return (await reply.json()) as Restored;
  });

export const useTurnOut = () =>
  useChange((id: string) => answer(api.DELETE("/api/devices/{device_id}", at({ device_id: id }))));

export const useChangeDevice = () =>
  useChange(({ id, ...body }: { id: string; kind: DeviceLine["kind"]; stay: OneCode["stay"] | null }) =>
    answer(api.PUT("/api/devices/{device_id}", { ...at({ device_id: id }), body })),
  );

/** A code that lets one device work. */
export const useMakeCode = () =>
  useChange((stay: OneCode["stay"]) => answer(api.POST("/api/codes", { body: { kind: "works", stay } })));

export const useDeleteRecording = () =>
  useChange((name: string) => answer(api.DELETE("/api/recordings/{name}", at({ name }))));

export const useKeepCopy = () =>
  useChange(({ name, kept }: { name: string; kept: boolean }) =>
    answer(api.PUT("/api/copies/{name}", { ...at({ name }), body: { kept } })),
  );

export const useRestoreCopy = () =>
  useChange(
    (name: string): Promise<Restored> => answer(api.POST("/api/copies/{name}/restore", at({ name }))),
  );

export const usePutAway = () =>
  useChange(({ id, away }: { id: string; away: boolean }) =>
    answer(api.PUT("/api/jobs/{job_id}/away", { ...at({ job_id: id }), body: { away } })),
  );
