import { useIsFetching } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";

/** How long nothing is asked any more until it counts as quiet. */
const QUIET_MS = 700;

let quiet = false;
const listeners = new Set<() => void>();

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether what the first view asks for has come: from then on there is time for what is wanted later. */
export const useQuiet = (): boolean => useSyncExternalStore(subscribe, () => quiet);

/** Look whether it is quiet; once on a page. */
export function useListening(): void {
  const busy = useIsFetching() > 0;
  useEffect(() => {
    if (busy || quiet) return;
    const timer = window.setTimeout(() => {
      quiet = true;
      for (const listener of listeners) listener();
    }, QUIET_MS);
    return () => window.clearTimeout(timer);
  }, [busy]);
}
