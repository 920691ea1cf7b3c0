import { useCallback, useEffect, useRef, useState } from "react";
import type { Edited } from "../api/edits";

interface Draft<T> {
  draft: T;
  change: (part: Partial<T>) => void;
  /** Whether what is on the screen has been kept. */
  kept: boolean;
  /** Back to before the last change; null where nothing was changed here. */
  undo: (() => void) | null;
}

const GOES_ON_MS = 1500;
const MOST_STEPS = 50;

/**
 * Something that is edited in place and keeps itself at every change. What is kept elsewhere is followed as long as
 * nothing is waiting here, and so is its revision: one that came since is somebody else's.
 */
export function useDraft<T extends object>(
  saved: T,
  revision: number,
  keep: (edited: Edited<T>) => Promise<unknown>,
): Draft<T> {
  const [draft, setDraft] = useState(saved);
  const [keptText, setKeptText] = useState(() => JSON.stringify(saved));
  const text = JSON.stringify(draft);
  const waits = useRef(false);
  waits.current = text !== keptText;
  const keeping = useRef(keep);
  keeping.current = keep;
  const read = useRef(revision);
  if (!waits.current) read.current = revision;

  const savedText = JSON.stringify(saved);
  const seen = useRef(savedText);
  useEffect(() => {
    if (seen.current === savedText) return;
    seen.current = savedText;
    if (waits.current) return;
    setDraft(JSON.parse(savedText) as T);
    setKeptText(savedText);
  }, [savedText]);

  useEffect(() => {
    if (text === keptText) return;
    keeping.current({ entry: JSON.parse(text) as T, read: read.current, typed: true }).then(
      () => setKeptText(text),
      () => undefined, // the caller's mutation shows why; the draft stays as it is
    );
  }, [text, keptText]);

  // Quick changes of the same fields are one step.
  const [past, setPast] = useState<{ of: string; at: number; was: T }[]>([]);
  const change = useCallback(
    (part: Partial<T>) => {
      const of = Object.keys(part).join();
      const at = Date.now();
      setPast((steps) => {
        const last = steps.at(-1);
        if (last?.of === of && at - last.at < GOES_ON_MS) return [...steps.slice(0, -1), { ...last, at }];
        return [...steps, { of, at, was: draft }].slice(-MOST_STEPS);
      });
      setDraft((now) => ({ ...now, ...part }));
    },
    [draft],
  );
  const last = past.at(-1);
  const undo = last
    ? () => {
        setDraft(last.was);
        setPast((steps) => steps.slice(0, -1));
      }
    : null;
  return { draft, change, kept: text === keptText, undo };
}
