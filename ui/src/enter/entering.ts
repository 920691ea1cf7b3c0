import { answer, api } from "../api/client";

/** The code that stands in the address behind its #; taken from there, so that it does not stay in it. */
export function codeInAddress(): string {
  const code = new URLSearchParams(location.hash.slice(1)).get("code") ?? "";
  if (code) history.replaceState(null, "", location.pathname + location.search);
  return code.replaceAll("-", " ");
}

const KINDS: [RegExp, string][] = [
  [/iPad|Tablet/i, "Tablet"],
  [/iPhone|Mobile/i, "Phone"],
  [/Android/i, "Tablet"],
];

/** What a device may be called, before somebody says so. */
export const usualName = () => KINDS.find(([sign]) => sign.test(navigator.userAgent))?.[1] ?? "Computer";

export const enter = (code: string, name: string) => answer(api.POST("/api/enter", { body: { code, name } }));

/** Whether a code is asked of this device; null where nobody answers. */
export const door = () => answer(api.GET("/api/door")).catch(() => null);

/** Let go of all that this browser kept. */
export function wipe(): void {
  indexedDB.deleteDatabase("lumso");
  localStorage.clear();
}
