import { answer, api } from "../api/client";
import { Lasting } from "../keep/store";

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

/** Let go of all that this browser kept of the workshop. What was entered and never sent stays, sealed; how much. */
export async function wipe(): Promise<number> {
  localStorage.clear();
  if ("caches" in window)
    for (const name of await caches.keys()) if (!name.startsWith("lumso-shell")) await caches.delete(name);
  return sealed();
}

/** How much waits here that was never sent. */
export async function sealed(): Promise<number> {
  const store = await Lasting.open().catch(() => null);
  const unsent = (await store?.unsent().catch(() => 0)) ?? 0;
  store?.close();
  return unsent;
}

/** Let go of what was entered and never sent. */
export async function letGo(): Promise<void> {
  const store = await Lasting.open().catch(() => null);
  await store?.wipe();
  store?.close();
}
