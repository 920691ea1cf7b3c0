import { useEffect, useRef } from "react";

const FORWARD = new Set(["PageDown", "ArrowRight", "Enter", " "]);
const BACK = new Set(["PageUp", "ArrowLeft"]);

/**
 * The keys and a foot pedal, forward and back, unless the screen is locked. What they do is read when one is
 * pressed, so that none is lost while the screen is drawn anew.
 */
export function usePedal(locked: boolean, does: { forward: () => void; back: () => void }): void {
  const keys = useRef(does);
  keys.current = does;
  const deaf = useRef(false);
  deaf.current = locked;
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (deaf.current || event.repeat || event.altKey || event.ctrlKey || event.metaKey) return;
      const typing = target?.closest("input, textarea, select, button, a, summary, [role=dialog]");
      // What has the focus is pressed itself; a foot pedal turns pages wherever that is.
      if (FORWARD.has(event.key) && (!typing || event.key === "PageDown")) {
        event.preventDefault();
        keys.current.forward();
      } else if (BACK.has(event.key) && !target?.closest("input, textarea, select")) {
        event.preventDefault();
        keys.current.back();
      }
    };
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, []);
}
