const NARROW = window.matchMedia("(max-width: 47.99rem)");

/** On a narrow screen what a press opens lies below: bring it into view, once it is drawn. */
export function intoView(id: string): void {
  if (!NARROW.matches) return;
  requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView({ block: "start" }));
}
