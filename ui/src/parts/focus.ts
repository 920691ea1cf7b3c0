const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled):not([type="hidden"]), select:not(:disabled), textarea:not(:disabled), summary, [tabindex]:not([tabindex="-1"])';

const shown = (e: Element): boolean => e.getClientRects().length > 0;

/** Where something stood: its ancestors, nearest first, each with which of its children it was in. */
interface Stood {
  what: Element;
  in: { parent: Element; at: number }[];
}

function stood(what: Element): Stood {
  const places: Stood["in"] = [];
  for (let e: Element | null = what; e?.parentElement; e = e.parentElement)
    places.push({ parent: e.parentElement, at: [...e.parentElement.children].indexOf(e) });
  return { what, in: places };
}

/** What can be focused in an element: itself, or the first in it. */
function within(e: Element | undefined): HTMLElement | null {
  if (!e || !shown(e)) return null;
  if (e.matches(FOCUSABLE)) return e as HTMLElement;
  return [...e.querySelectorAll<HTMLElement>(FOCUSABLE)].find(shown) ?? null;
}

/** What now stands nearest to where something was: in its place, before it, or the heading of what held it. */
function nearest(was: Stood): HTMLElement | null {
  for (const { parent, at } of was.in) {
    if (!parent.isConnected || !shown(parent) || parent === document.body) continue;
    if (parent.matches("main")) return parent.querySelector<HTMLElement>("h1"); // another view: at its heading, when it is there
    const children = [...parent.children];
    const found = within(children[at]) ?? within(children[at - 1]) ?? within(children[at + 1]);
    if (found && found !== was.what) return found;
    const heading = parent.querySelector<HTMLElement>("h1, h2, h3");
    if (heading && shown(heading)) return heading;
  }
  return null;
}

/**
 * Keeps the focus where the eye is: when what has it goes, or can no longer be pressed, it moves to what stands nearest
 * to that place, not to the top of the page. A view that is opened is begun at its heading.
 */
export function keepFocus(): () => void {
  let last: Stood | null = null;
  const onFocus = (e: FocusEvent) => {
    if (e.target instanceof Element && e.target !== document.body) last = stood(e.target);
  };
  // Pressed beside everything on purpose: the focus was let go, not lost.
  const onDown = (e: PointerEvent) => {
    if (!(e.target instanceof Element && e.target.closest(`${FOCUSABLE}, label, [role="option"]`)))
      last = null;
  };
  let waiting = false;
  const look = () => {
    waiting = false;
    if (!last) return;
    const gone = !last.what.isConnected || !shown(last.what) || last.what.matches(":disabled");
    const { activeElement: has } = document;
    if (has && has !== document.body && has !== last.what) return;
    if (!gone || document.querySelector('[role="dialog"]')) return;
    const next = nearest(last);
    if (!next) return;
    if (!next.matches(FOCUSABLE)) next.tabIndex = -1;
    next.focus({ preventScroll: next.matches("h1, h2, h3") });
  };
  const watch = new MutationObserver(() => {
    if (waiting) return;
    waiting = true;
    requestAnimationFrame(() => requestAnimationFrame(look));
  });
  document.addEventListener("focusin", onFocus);
  document.addEventListener("pointerdown", onDown);
  watch.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ["disabled", "hidden"],
  });
  return () => {
    watch.disconnect();
    document.removeEventListener("focusin", onFocus);
    document.removeEventListener("pointerdown", onDown);
  };
}
