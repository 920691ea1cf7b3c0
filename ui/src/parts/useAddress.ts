import { useCallback } from "react";
import { useLocation, useSearchParams } from "react-router";

/** Something of a place that stands in its address, so that it can be come back to and passed on. What is set late,
 * once somebody went on to another place, is not: it would lead them back. */
export function useAddress(key: string, usual: string): [string, (value: string) => void] {
  const [params, setParams] = useSearchParams();
  const { pathname } = useLocation();
  const set = useCallback(
    (value: string) =>
      window.location.pathname === pathname &&
      setParams(
        (now) => {
          const next = new URLSearchParams(now);
          if (value === usual) next.delete(key);
          else next.set(key, value);
          return next;
        },
        { replace: true },
      ),
    [key, usual, setParams, pathname],
  );
  return [params.get(key) ?? usual, set];
}

/** The part of an address that says which zone and layer are meant: it goes along from side to side. */
export function sameSpot(search: string): string {
  const params = new URLSearchParams(search);
  const kept = new URLSearchParams();
  for (const key of ["zone", "layer"]) {
    const value = params.get(key);
    if (value) kept.set(key, value);
  }
  const words = kept.toString();
  return words ? `?${words}` : "";
}
