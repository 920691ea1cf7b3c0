import { useEffect, useState } from "react";

const AFTER_MS = 900;

/** A number that changes, read out once it rests, quietly. */
export function Announce({ children }: { children: string }) {
  const [said, setSaid] = useState("");
  const [first] = useState(children);
  useEffect(() => {
    if (children === first) return;
    const timer = window.setTimeout(() => setSaid(children), AFTER_MS);
    return () => window.clearTimeout(timer);
  }, [children, first]);
  return (
    <p aria-live="polite" className="sr-only">
      {said}
    </p>
  );
}
