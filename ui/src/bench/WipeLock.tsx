import { useEffect, useRef, useState } from "react";

const HOLD_MS = 1200;

/** While it is on, no touch does anything: for wiping the screen. Held, or by a key, it is taken off. */
export function WipeLock({ onOff }: { onOff: () => void }) {
  const [held, setHeld] = useState(false);
  const timer = useRef(0);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    button.current?.focus();
    return () => window.clearTimeout(timer.current);
  }, []);
  const hold = () => {
    setHeld(true);
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(onOff, HOLD_MS);
  };
  const letGo = () => {
    setHeld(false);
    window.clearTimeout(timer.current);
  };
  return (
    <div className="fixed inset-0 z-20 flex touch-none items-end justify-center bg-ink/55 p-6" data-lock>
      <button
        ref={button}
        type="button"
        className="press min-h-[96px] px-10 text-lg select-none"
        onPointerDown={hold}
        onPointerUp={letGo}
        onPointerLeave={letGo}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Escape" || e.key === "Enter") onOff();
        }}
      >
        {held ? "Keep holding…" : "Locked for wiping: hold to unlock"}
      </button>
    </div>
  );
}
