import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { changed } from "../api/follows";
import { type Changed, Live } from "../api/live";
import type { JobSession } from "./session";

/** What others do to a job, and to the workshop it is worked out in, is seen here as it happens, while this page is. */
export function useFollow(id: string, session: JobSession | undefined): void {
  const client = useQueryClient();
  useEffect(() => {
    if (!session) return;
    let workshop = 0;
    const told = (now: Changed) => {
      session.heard(now.revision);
      if (workshop && now.workshop !== workshop) {
        void changed(client);
        session.replan();
      }
      workshop = now.workshop;
    };
    const live = new Live(id, told, false);
    const look = () => {
      if (document.visibilityState === "hidden") live.stop();
      else live.start();
    };
    look();
    document.addEventListener("visibilitychange", look);
    return () => {
      document.removeEventListener("visibilitychange", look);
      live.stop();
    };
  }, [id, session, client]);
}
