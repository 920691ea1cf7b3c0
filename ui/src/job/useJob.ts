import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import type { Edit, Job, Taken } from "../api/client";
import { outsideOf } from "./outside";
import { JobSession, type Shown } from "./session";

export interface OpenJob extends Shown {
  id: string;
  session: JobSession;
  edit: (change: (job: Job) => Job, label?: string) => void;
  decide: (label: string, edit: Edit) => Promise<Taken[] | null>;
}

/** A job that is being worked on: the session that holds it, as a hook. */
export function useJob(id: string): { open: OpenJob | null; failed: Error | null } {
  const client = useQueryClient();
  const session = useMemo(() => new JobSession(outsideOf(id, client)), [id, client]);
  const shown = useSyncExternalStore(session.subscribe, session.shown);
  useEffect(() => {
    void session.open();
    window.addEventListener("pagehide", session.flush);
    return () => {
      window.removeEventListener("pagehide", session.flush);
      session.flush();
    };
  }, [session]);
  const open = useMemo(
    () => shown && { ...shown, id, session, edit: session.edit, decide: session.decide },
    [shown, id, session],
  );
  return { open, failed: session.failed };
}
