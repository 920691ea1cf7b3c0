import { useCallback, useEffect, useRef, useState } from "react";
import type { Edited } from "../api/edits";

interface Draft<T> {
  draft: T;
  change: (part: Partial<T>) => void;
  /** Whether what is on the screen has been kept. */
  kept: boolean;
}

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

  const change = useCallback((part: Partial<T>) => setDraft((now) => ({ ...now, ...part })), []);
  return { draft, change, kept: text === keptText };
}
