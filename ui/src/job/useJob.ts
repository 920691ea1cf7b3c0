import { useEffect, useMemo, useSyncExternalStore } from "react";
import type { Edit, Job, Taken } from "../api/client";
import { useKeeping } from "../keep/hooks";
import type { Shown } from "./outer";
import type { JobSession } from "./session";

export interface OpenJob extends Shown {
  id: string;
  session: JobSession;
  edit: (change: (job: Job) => Job, label?: string) => void;
  decide: (label: string, edit: Edit) => Promise<Taken[] | null>;
}

/** A job that is being worked on: the session that holds it, as a hook. */
export function useJob(id: string): { open: OpenJob | null; failed: Error | null; again: () => void } {
  const { sessions } = useKeeping();
  const session = sessions.of(id);
  const shown = useSyncExternalStore(session.subscribe, session.shown);
  const failed = useSyncExternalStore(session.subscribe, session.why);
  useEffect(() => {
    const hidden = sessions.show(id, session);
    window.addEventListener("pagehide", session.flush);
    return () => {
      window.removeEventListener("pagehide", session.flush);
      hidden();
    };
  }, [sessions, session, id]);
  const open = useMemo(
    () => shown && { ...shown, id, session, edit: session.edit, decide: session.decide },
    [shown, id, session],
  );
  return { open, failed, again: () => void session.open() };
}
