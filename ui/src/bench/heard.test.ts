import { describe, expect, it } from "vitest";
import { heardNow, ownVoice } from "./heard";

const still = {
  rings: false,
  says: "Mix salt wash",
  state: "",
  todo: null,
  toMark: null,
  asks: "",
  stirs: false,
  judging: false,
  target: "brownie batter",
  advice: "",
};
const todo = { name: "Paint", g: 15.2, near: 0.2 };

describe("what is heard at the bench", () => {
  it("is what to do, then what the scale asks for, then the mark, and too far", () => {
    expect(heardNow(still)).toBe("Mix salt wash.");
    expect(heardNow({ ...still, state: "begun" })).toBe("Mix salt wash: begun.");
    expect(heardNow({ ...still, todo, asks: "Put the pot on the scale." })).toBe("Put the pot on the scale.");
    expect(heardNow({ ...still, todo })).toBe("Pour 15.2 g of paint.");
    expect(heardNow({ ...still, todo, toMark: 0.1 })).toBe("At the mark: stop.");
    expect(heardNow({ ...still, todo, toMark: -3 })).toContain("Too far: stop");
  });

  it("stays the same while a pour is under way, so that it is said once", () => {
    expect(heardNow({ ...still, todo, toMark: 9 })).toBe(heardNow({ ...still, todo, toMark: 3 }));
  });

  it("is stirring, judging, and what was advised", () => {
    expect(heardNow({ ...still, stirs: true, judging: true })).toContain("Stir");
    expect(heardNow({ ...still, judging: true })).toContain("like brownie batter");
    expect(heardNow({ ...still, judging: true, advice: "Add water." })).toBe("Add water.");
    expect(heardNow({ ...still, todo, rings: true })).toBe("A timer rings.");
  });
});

describe("the voice", () => {
  const voice = (lang: string, localService: boolean) => ({ lang, localService }) as SpeechSynthesisVoice;
  it("is the device's own, in the language of the words, or none", () => {
    const own = voice("en-GB", true);
    expect(ownVoice([voice("en-US", false), voice("de-DE", true), own])).toBe(own);
    expect(ownVoice([voice("en-US", false), voice("de-DE", true)])).toBeUndefined();
  });
});
