import { useEffect } from "react";

/** The page's title names the place one is at; `where` is empty while it is not known yet. */
export function usePlace(where: string): void {
  useEffect(() => {
    document.title = where ? `${where} · Lumso` : "Lumso";
  }, [where]);
}
