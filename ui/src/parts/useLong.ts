import { useEffect, useState } from "react";

/** Whether something has been so for a while: what passes at once is not worth a word. */
export function useLong(so: boolean, ms: number): boolean {
  const [long, setLong] = useState(false);
  useEffect(() => {
    if (!so) return setLong(false);
    const timer = window.setTimeout(() => setLong(true), ms);
    return () => window.clearTimeout(timer);
  }, [so, ms]);
  return so && long;
}
