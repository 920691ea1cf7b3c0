import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Job, type JobReply, NoAnswer, type Plan, Refused } from "../api/client";
import { forgetUnsaved, keepUnsaved, unsavedOf } from "./unsaved";

export type SaveState = "saved" | "saving" | "waiting" | "changed elsewhere" | "refused";

export interface OpenJob {
  id: string;
  job: Job;
  plan: Plan;
  saveState: SaveState;
  says: string;
  canUndo: boolean;
  canRedo: boolean;
  edit: (change: (job: Job) => Job) => void;
  /** An edit that asks the server: asked again when the job was edited meanwhile, so that nothing is lost. */
  editVia: (ask: (job: Job) => Promise<Job>) => Promise<void>;
  undo: () => void;
  redo: () => void;
  replan: () => void;
  /** Which zone is on the screen: only its amounts come with the working behind them. */
  lookAt: (zone: string) => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

const SAVE_AFTER_MS = 400;
const TRY_AGAIN_MS = 2000;

const fresh = () => ({
  job: null as Job | null,
  revision: 0,
  sequence: 0,
  dirty: false,
  saving: false,
  timer: 0,
  zone: "",
});

/**
 * A job that is being worked on: edits show at once, are planned by the server under a rising sequence number
 * (late answers are dropped), and save themselves with the revision they were made from.
 */
export function useJob(id: string): { open: OpenJob | null; failed: Error | null } {
  const client = useQueryClient();
  const [reply, setReply] = useState<JobReply | null>(null);
  const [job, setJob] = useState<Job | null>(null);
  const [plan, setPlan] = useState<Plan | null>(null);
  const [failed, setFailed] = useState<Error | null>(null);
  const [saveState, setSaveState] = useState<SaveState>("saved");
  const [says, setSays] = useState("");
  const now = useRef(fresh());

  const replan = useCallback(async () => {
    const current = now.current.job;
    if (!current) return;
    now.current.sequence += 1;
    const sequence = now.current.sequence;
    try {
      const planned = await answer(
        api.POST("/api/plan", { body: { sequence, job: current, looked_at: now.current.zone } }),
      );
      if (planned.sequence === now.current.sequence) setPlan(planned.plan);
    } catch (error) {
      if (sequence === now.current.sequence) setSays((error as Error).message);
    }
  }, []);

  const lookAt = useCallback(
    (zone: string) => {
      const before = now.current.zone;
      now.current.zone = zone;
      if (before && before !== zone) void replan();
    },
    [replan],
  );

  const take = useCallback((got: JobReply) => {
    Object.assign(now.current, { revision: got.revision, job: got.job, dirty: false });
    now.current.sequence += 1;
    setReply(got);
    setJob(got.job);
    setPlan(got.plan);
    setSaveState("saved");
    setSays("");
    forgetUnsaved(got.id);
  }, []);

  const save = useCallback(async (): Promise<void> => {
    const state = now.current;
    window.clearTimeout(state.timer);
    if (!state.dirty || state.saving || !state.job) return;
    state.saving = true;
    state.dirty = false;
    setSaveState("saving");
    try {
      const params = { path: { job_id: id }, header: { "If-Match": `"${state.revision}"` } };
      const put = api.PUT("/api/jobs/{job_id}", { params, body: state.job, keepalive: true });
      const got = await answer(put);
      state.revision = got.revision;
      state.job = { ...state.job, entries: got.job.entries };
      setReply(got);
      setSays("");
      setSaveState("saved");
      if (!state.dirty) forgetUnsaved(id);
      client.invalidateQueries({ queryKey: ["jobs"] });
    } catch (error) {
      state.dirty = true;
      setSays((error as Error).message);
      if (error instanceof NoAnswer || (error instanceof Refused && error.problem.status >= 500)) {
        setSaveState("waiting");
        state.timer = window.setTimeout(() => void save(), TRY_AGAIN_MS);
      } else {
        setSaveState(
          error instanceof Refused && error.problem.status === 412 ? "changed elsewhere" : "refused",
        );
      }
      return;
    } finally {
      state.saving = false;
    }
    if (state.dirty) await save();
  }, [id, client]);

  const edit = useCallback(
    (change: (job: Job) => Job) => {
      const state = now.current;
      if (!state.job) return;
      state.job = change(state.job);
      state.dirty = true;
      setJob(state.job);
      setSaveState((now) => (now === "saved" ? "saving" : now));
      void replan(); // on its way before anything else is done
      keepUnsaved(id, state.revision, state.job);
      window.clearTimeout(state.timer);
      state.timer = window.setTimeout(() => void save(), SAVE_AFTER_MS);
    },
    [id, replan, save],
  );

  const editVia = useCallback(
    async (ask: (job: Job) => Promise<Job>) => {
      try {
        for (let tries = 0; tries < 8; tries += 1) {
          const before = now.current.job;
          if (!before) return;
          const after = await ask(before);
          if (now.current.job !== before) continue;
          edit(() => after);
          return;
        }
      } catch (error) {
        setSays((error as Error).message);
      }
    },
    [edit],
  );

  const step = useCallback(
    async (way: "undo" | "redo") => {
      await save();
      if (now.current.dirty) return;
      const params = { path: { job_id: id }, header: { "If-Match": `"${now.current.revision}"` } };
      try {
        take(await answer(api.POST(`/api/jobs/{job_id}/${way}`, { params })));
        client.invalidateQueries({ queryKey: ["jobs"] });
      } catch (error) {
        setSays((error as Error).message);
        if (error instanceof Refused && error.problem.status === 412) setSaveState("changed elsewhere");
      }
    },
    [id, save, take, client],
  );

  const load = useCallback(async () => {
    try {
      return await answer(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } }));
    } catch (error) {
      setFailed(error as Error);
      return null;
    }
  }, [id]);

  useEffect(() => {
    let gone = false;
    now.current = fresh();
    void load().then((got) => {
      if (!got || gone) return;
      const left = unsavedOf(id, got.job);
      take(got);
      if (left) {
        now.current.revision = left.revision;
        edit(() => left.job);
      }
    });
    const leave = () => void save();
    window.addEventListener("pagehide", leave);
    return () => {
      gone = true;
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [id, load, take, edit, save]);

  if (!job || !plan || !reply || reply.id !== id) return { open: null, failed };
  const open: OpenJob = {
    id,
    job,
    plan,
    saveState,
    says,
    canUndo: reply.can_undo || saveState !== "saved",
    canRedo: reply.can_redo && saveState === "saved",
    edit,
    editVia,
    undo: () => void step("undo"),
    redo: () => void step("redo"),
    replan: () => void replan(),
    lookAt,
    keepMine: () => {
      void load().then((theirs) => {
        if (!theirs) return;
        now.current.revision = theirs.revision; // theirs stays in the history, one undo away
        void save();
      });
    },
    takeTheirs: () => void load().then((theirs) => theirs && take(theirs)),
  };
  return { open, failed };
}
