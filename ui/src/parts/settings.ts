import { useSyncExternalStore } from "react";

/** How this device shows Lumso: kept here, not in the workshop. */
export interface Shown {
  /** Dark in the evening: as chosen, or as the device says. */
  light: "device" | "day" | "evening";
  /** Whether single keys do something. */
  keys: boolean;
}

const KEY = "lumso-shown";
const USUAL: Shown = { light: "device", keys: true };
const dark = window.matchMedia("(prefers-color-scheme: dark)");

function read(): Shown {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Shown>;
    return { ...USUAL, ...kept };
  } catch {
    return USUAL;
  }
}

let now = read();
const listeners = new Set<() => void>();

function apply(): void {
  const evening = now.light === "evening" || (now.light === "device" && dark.matches);
  document.documentElement.toggleAttribute("data-evening", evening);
}

apply();
dark.addEventListener("change", apply);

export function show(change: Partial<Shown>): void {
  now = { ...now, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(now));
  } catch {
    // this browser keeps nothing: it lasts as long as the page
  }
  apply();
  for (const tell of listeners) tell();
}

export const useShown = (): Shown =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );

export const shownNow = (): Shown => now;
