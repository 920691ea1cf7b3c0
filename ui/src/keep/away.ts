import type { QueryClient } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";

/** Said by what opens Lumso while its server is away: since when an answer is kept. */
const KEPT = "X-Lumso-Kept";
const LOOK_EVERY_MS = 3000;

let since: string | null = null;
let looking = 0;
let client: QueryClient | null = null;
const listeners = new Set<() => void>();

function tell(next: string | null): void {
  if (next === since) return;
  since = next;
  for (const listener of listeners) listener();
}

/** Ask until the server answers itself; then everything is asked again. */
async function look(): Promise<void> {
  const reply = await fetch("/api/identity", { cache: "no-store" }).catch(() => null);
  if (!reply?.ok) {
    looking = window.setTimeout(() => void look(), LOOK_EVERY_MS);
    return;
  }
  looking = 0;
  tell(null);
  void client?.invalidateQueries();
}

/** Look at a reply: whether it is the server's own, or a copy of what it said before. */
export function heard(response: Response): void {
  const at = response.headers.get(KEPT);
  if (!at) return;
  if (!since || at < since) tell(at);
  if (!looking) looking = window.setTimeout(() => void look(), LOOK_EVERY_MS);
}

/** Be told when that changes; returns how to be told no more. */
export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Since when what is shown is a copy; null while the server answers. */
export const now = (): string | null => since;

/** The same, for what is drawn. */
export const useAway = (): string | null => useSyncExternalStore(subscribe, now);

/** Whether this device can keep Lumso at all: not over plain http from another machine. */
export const canKeep = (): boolean => window.isSecureContext && "serviceWorker" in navigator;

/** Keep Lumso on this device, where it can be. */
export function keepLumso(queries: QueryClient): void {
  client = queries;
  if (canKeep()) void navigator.serviceWorker.register("/sw.js").catch(() => undefined);
}
