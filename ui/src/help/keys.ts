/** What a single key does, and where. In fields they are letters. */
export const SHORTCUTS = [
  { key: "?", does: "This list", to: "" },
  { key: "t", does: "Today", to: "/" },
  { key: "n", does: "New job", to: "/new" },
  { key: "d", does: "Days", to: "/days" },
  { key: "r", does: "Recipes", to: "/book" },
  { key: "s", does: "Shelf", to: "/shelf" },
  { key: "b", does: "Buying", to: "/buying" },
  { key: "k", does: "Kit", to: "/kit" },
  { key: "l", does: "Log", to: "/log" },
  { key: "w", does: "What is left of a mix", to: "/left" },
  { key: "a", does: "Ask about a finish", to: "/ask" },
] as const;

/** Keys that work with a held one, everywhere. */
export const HELD = [
  { key: "Ctrl Z", does: "Undo the last change of this job" },
  { key: "Ctrl Shift Z", does: "Do it again" },
] as const;

/** Whether a key is typed into something. */
export function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.matches(
      'input:not([type="checkbox"]):not([type="radio"]), textarea, select, [contenteditable="true"], [role="menuitem"]',
    )
  );
}
