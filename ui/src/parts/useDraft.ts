import { useCallback, useEffect, useRef, useState } from "react";

const KEEP_AFTER_MS = 400;

interface Draft<T> {
  draft: T;
  change: (part: Partial<T>) => void;
  /** Whether what is on the screen has been kept. */
  kept: boolean;
}

/**
 * Something that is edited in place and keeps itself: shown at once, kept a moment later and when the page is left.
 * What is kept elsewhere is followed as long as nothing is waiting here.
 */
export function useDraft<T extends object>(saved: T, keep: (draft: T) => Promise<unknown>): Draft<T> {
  const [draft, setDraft] = useState(saved);
  const [keptText, setKeptText] = useState(() => JSON.stringify(saved));
  const text = JSON.stringify(draft);
  const waiting = useRef<T | null>(null);
  waiting.current = text === keptText ? null : draft;
  const keeping = useRef(keep);
  keeping.current = keep;

  const flush = useCallback(() => {
    const now = waiting.current;
    if (!now) return;
    keeping.current(now).then(
      () => setKeptText(JSON.stringify(now)),
      () => undefined, // the caller's mutation shows why; the draft stays as it is
    );
  }, []);

  const savedText = JSON.stringify(saved);
  const seen = useRef(savedText);
  useEffect(() => {
    if (seen.current === savedText) return;
    seen.current = savedText;
    if (waiting.current === null) {
      setDraft(JSON.parse(savedText) as T);
      setKeptText(savedText);
    }
  }, [savedText]);

  useEffect(() => {
    if (text === keptText) return;
    const timer = window.setTimeout(flush, KEEP_AFTER_MS);
    return () => window.clearTimeout(timer);
  }, [text, keptText, flush]);

  useEffect(() => {
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, [flush]);

  const change = useCallback((part: Partial<T>) => setDraft((now) => ({ ...now, ...part })), []);
  return { draft, change, kept: text === keptText };
}
