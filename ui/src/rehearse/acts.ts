import { useCallback, useEffect, useState } from "react";
import type { Act } from "../api/rehearsal";

/** What was done on a board, on which afternoon; 0 is one that goes as planned. */
export interface Course {
  seed: number;
  acts: Act[];
}

const FRESH: Course = { seed: 0, acts: [] };
/** One second is so many minutes, while it runs. */
const RUN_MIN = 1;

/** The acts with one more; minutes that follow minutes are one wait. */
export function withAct(acts: Act[], next: Act): Act[] {
  const last = acts.at(-1);
  if (next.act === "pass" && last?.act === "pass")
    return [...acts.slice(0, -1), { act: "pass", minutes: last.minutes + next.minutes }];
  return [...acts, next];
}

/** An afternoon nobody has had yet. */
export const another = (): number => 1 + Math.floor(Math.random() * 1_000_000);

const placeOf = (job: string, zone: string) => `lumso-rehearsal/${job}/${zone}`;

function kept(place: string): Course {
  try {
    return (JSON.parse(sessionStorage.getItem(place) ?? "null") as Course | null) ?? FRESH;
  } catch {
    return FRESH;
  }
}

/** A rehearsal of a zone as this window has it: it outlives a reload, and nothing else. */
export function useCourse(job: string, zone: string) {
  const place = placeOf(job, zone);
  const [held, setHeld] = useState(() => ({ place, course: kept(place) }));
  const course = held.place === place ? held.course : kept(place);
  const set = useCallback(
    (next: (was: Course) => Course) =>
      setHeld((was) => {
        const made = next(was.place === place ? was.course : kept(place));
        try {
          sessionStorage.setItem(place, JSON.stringify(made));
        } catch {
          // Kept nowhere: it goes on all the same.
        }
        return { place, course: made };
      }),
    [place],
  );
  const does = useCallback((act: Act) => set((was) => ({ ...was, acts: withAct(was.acts, act) })), [set]);
  return {
    course,
    does,
    /** Again from before an act, on the same afternoon. */
    backTo: (before: number) => set((was) => ({ ...was, acts: was.acts.slice(0, before) })),
    again: (seed: number) => set(() => ({ seed, acts: [] })),
  };
}

/** The clock runs, a minute a second, while it is let; never while the page is not looked at. */
export function useRunning(on: boolean, passes: (minutes: number) => void): void {
  useEffect(() => {
    if (!on) return;
    const every = window.setInterval(() => {
      if (document.visibilityState === "visible") passes(RUN_MIN);
    }, 1000);
    return () => window.clearInterval(every);
  }, [on, passes]);
}
