import { useEffect, useState } from "react";
import { LABEL } from "./notices";

const AFTER_MS = 200;

/** Part of a name that is looked for: asked for when typing rests. */
export function SearchField({ label, onSearch }: { label: string; onSearch: (search: string) => void }) {
  const [typed, setTyped] = useState("");
  useEffect(() => {
    const timer = window.setTimeout(() => onSearch(typed.trim()), AFTER_MS);
    return () => window.clearTimeout(timer);
  }, [typed, onSearch]);
  return (
    <label className={`${LABEL} w-full max-w-sm grow`}>
      {label}
      <input
        type="search"
        className="tape w-full text-base text-ink"
        maxLength={200}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
    </label>
  );
}
