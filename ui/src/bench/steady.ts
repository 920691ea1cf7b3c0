import { useEffect, useRef, useState } from "react";

/** How long a key that has just come to mean something else does nothing: a finger bounces for less. */
export const DEAD_MS = 400;

/** Numbers count up while something is poured; what the key does stays the same. */
export const meaningOf = (operation: string, says: string): string =>
  `${operation} ${says.replaceAll(/[\d.,\s]+/g, " ")}`;

/** Whether what a key does has stood long enough: a second press that was meant for what it did before does nothing. */
export function useSteady(meaning: string): boolean {
  const was = useRef(meaning);
  const [steady, setSteady] = useState(true);
  useEffect(() => {
    if (was.current === meaning) return;
    was.current = meaning;
    setSteady(false);
    const over = setTimeout(() => setSteady(true), DEAD_MS);
    return () => {
      clearTimeout(over);
      was.current = ""; // what comes next is judged anew
    };
  }, [meaning]);
  return steady && was.current === meaning;
}
