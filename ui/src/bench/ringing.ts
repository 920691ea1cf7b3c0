import { useCallback, useEffect, useRef, useState } from "react";

const BEEPS = [0, 0.35, 0.7];

/** A bell that the first touch unlocks. Where sound stays blocked `flash` says so, and the screen is to flash. */
export function useBell(): { ring: () => void; flash: boolean; quiet: boolean; hush: () => void } {
  const context = useRef<AudioContext | null>(null);
  const [flash, setFlash] = useState(false);
  const [quiet, setQuiet] = useState(true);
  useEffect(() => {
    const unlock = () => {
      try {
        context.current ??= new AudioContext();
        void context.current.resume().then(() => setQuiet(context.current?.state !== "running"));
      } catch {
        // a browser without sound: the screen flashes
      }
    };
    window.addEventListener("pointerdown", unlock);
    window.addEventListener("keydown", unlock);
    return () => {
      window.removeEventListener("pointerdown", unlock);
      window.removeEventListener("keydown", unlock);
      void context.current?.close();
      context.current = null;
    };
  }, []);
  const ring = useCallback(() => {
    setFlash(true);
    const sound = context.current;
    if (sound?.state !== "running") return;
    for (const at of BEEPS) {
      const tone = sound.createOscillator();
      const loud = sound.createGain();
      tone.frequency.value = 880;
      loud.gain.setValueAtTime(0.0001, sound.currentTime + at);
      loud.gain.exponentialRampToValueAtTime(0.3, sound.currentTime + at + 0.02);
      loud.gain.exponentialRampToValueAtTime(0.0001, sound.currentTime + at + 0.28);
      tone.connect(loud).connect(sound.destination);
      tone.start(sound.currentTime + at);
      tone.stop(sound.currentTime + at + 0.3);
    }
  }, []);
  const hush = useCallback(() => setFlash(false), []);
  return { ring, flash, quiet, hush };
}
