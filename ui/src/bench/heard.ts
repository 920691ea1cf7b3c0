import { useCallback, useEffect, useRef, useState } from "react";
import { grams } from "../parts/say";
import type { AtHand } from "./now";
import { WORDS } from "./states";
import { lookedAt, toMark } from "./toPour";

interface Heard {
  /** A timer rings. */
  rings: boolean;
  /** What is done now, and whether it is begun. */
  says: string;
  state: string;
  /** What is poured, and how far it is from its mark by the scale, in g: below 0 is too far; null without a scale. */
  todo: { name: string; g: number; near: number } | null;
  toMark: number | null;
  /** What the scale asks for; "" for nothing. */
  asks: string;
  stirs: boolean;
  judging: boolean;
  target: string;
  /** What was advised on what was seen last; "" for nothing. */
  advice: string;
}

/** What there is to know now in one sentence, for ears: it changes only where something has changed for the hands. */
export function heardNow(h: Heard): string {
  if (h.rings) return "A timer rings.";
  if (h.todo) {
    if (h.asks) return h.asks;
    if (h.toMark !== null && h.toMark < -h.todo.near) return "Too far: stop. It is over the mark.";
    if (h.toMark !== null && h.toMark <= h.todo.near) return "At the mark: stop.";
    return `Pour ${grams(h.todo.g)} of ${h.todo.name.toLowerCase()}.`;
  }
  if (h.stirs) return "All is in. Stir until no streak is left.";
  if (h.judging)
    return h.advice || `Say what it looks like. It should be like ${h.target || "what you want"}.`;
  return h.state ? `${h.says}: ${h.state}.` : `${h.says}.`;
}

/** What there is to say of what is at hand; `target` is what the mix should be like. */
export function heardOf(hand: AtHand, rings: boolean, target: string): Heard {
  const { op, pot, todo, byScale, weighs, stirs, judging } = hand;
  const state = op?.state ?? "planned";
  return {
    rings,
    says: op?.operation.says ?? "",
    state: state === "planned" ? "" : (WORDS[state] ?? ""),
    todo: todo && state === "begun" ? { name: todo.stuff.name, g: todo.left, near: todo.near } : null,
    toMark: todo && weighs ? toMark(todo, pot?.held_g ?? 0, byScale) : null,
    asks: weighs && byScale?.g == null ? byScale?.says || "Put the pot on the scale." : "",
    stirs,
    judging,
    target,
    advice: (pot && lookedAt(pot) && pot.advice?.says) || "",
  };
}

/** A voice of the device itself that speaks this language; undefined where there is none. */
export const ownVoice = (voices: readonly SpeechSynthesisVoice[], language = "en") =>
  voices.find((v) => v.localService && v.lang.toLowerCase().startsWith(language));

/** Reads aloud what changes, by a voice of the device itself; off until it is asked for, quiet at a touch. */
export function useReading(text: string): { can: boolean; on: boolean; toggle: () => void } {
  const speech = typeof speechSynthesis === "undefined" ? null : speechSynthesis;
  const [voice, setVoice] = useState<SpeechSynthesisVoice | undefined>();
  const [on, setOn] = useState(false);
  const last = useRef("");
  useEffect(() => {
    if (!speech) return;
    const look = () => setVoice(ownVoice(speech.getVoices()));
    look();
    speech.addEventListener?.("voiceschanged", look);
    return () => speech.removeEventListener?.("voiceschanged", look);
  }, [speech]);
  useEffect(() => {
    if (!on || !speech || !voice || last.current === text) return;
    last.current = text;
    speech.cancel();
    const said = new SpeechSynthesisUtterance(text);
    said.voice = voice;
    speech.speak(said);
  }, [on, speech, voice, text]);
  useEffect(() => {
    const hush = () => speech?.cancel();
    window.addEventListener("pointerdown", hush);
    return () => {
      window.removeEventListener("pointerdown", hush);
      hush();
    };
  }, [speech]);
  const toggle = useCallback(() => {
    last.current = "";
    setOn((was) => !was);
  }, []);
  return { can: voice !== undefined, on, toggle };
}
