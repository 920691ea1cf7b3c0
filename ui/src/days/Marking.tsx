import { useState } from "react";
import type { DayOperation } from "../api/client";
import { type Did, type NotedHere, useNote } from "../api/days";
import { Failure } from "../parts/Failure";
import { Stepper } from "../parts/fields";
import { Row } from "../parts/notices";

/** How it stands with an operation, what was noted here counted in. */
export function stateOf(one: DayOperation, here: NotedHere | null | undefined): Did | "planned" {
  if (here === null) return "planned";
  return here?.did ?? one.state;
}

const WORDS: Record<Did | "planned", string> = {
  planned: "",
  begun: "begun",
  done: "done",
  skipped: "left out",
  "gone wrong": "gone wrong",
  retracted: "",
  noted: "",
  corrected: "",
};

/** What is said of how an operation stands. */
export const stateWord = (state: Did | "planned"): string => WORDS[state];

interface Props {
  one: DayOperation;
  here: NotedHere | null | undefined;
  /** Large, for a wet hand. */
  large?: boolean;
}

/** Begun, done, left out, gone wrong; each can be taken back. */
export function Marking({ one, here, large = false }: Props) {
  const { note, takeBack, error } = useNote();
  const [more, setMore] = useState(false);
  const [ago, setAgo] = useState(0);
  const [words, setWords] = useState("");
  const state = stateOf(one, here);
  const event = here?.event ?? one.event;
  const size = large ? "min-h-[72px] min-w-[72px] px-6 text-lg" : "";
  const says = (did: string) => `${did}: ${one.operation.says}`;
  const back = event && state !== "planned" && (
    <button
      type="button"
      className={`press ${size}`}
      aria-label={says("Take back")}
      onClick={() => takeBack(one.job, one.operation.id, one.operation.says, event)}
    >
      Take back
    </button>
  );
  if (state === "done" || state === "skipped" || state === "gone wrong")
    return (
      <div className="flex flex-wrap items-center gap-3">
        <span className="font-semibold">{stateWord(state)}</span>
        {back}
        {error && <Failure error={error} />}
      </div>
    );
  return (
    <div>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className={`press press-strong ${size}`}
          aria-label={says("Done")}
          onClick={() => note(one, "done", ago)}
        >
          Done{ago > 0 && `, ${ago} min ago`}
        </button>
        {state === "planned" && (
          <button
            type="button"
            className={`press ${size}`}
            aria-label={says("Begun")}
            onClick={() => note(one, "begun", ago)}
          >
            Begun{ago > 0 && `, ${ago} min ago`}
          </button>
        )}
        {state === "begun" && back}
        <button
          type="button"
          className={`press ${size}`}
          aria-expanded={more}
          aria-label={says("More")}
          onClick={() => setMore(!more)}
        >
          More
        </button>
      </div>
      {more && (
        <div className="mt-2 max-w-xl border-l-4 border-line pl-3">
          <Stepper
            label="It was so many minutes ago"
            value={ago}
            min={0}
            max={24 * 60}
            step={5}
            shown={ago === 0 ? "now" : `${ago} min`}
            onChange={setAgo}
          />
          <label className="narrow mt-2 block text-sm font-semibold text-soft">
            In your words
            <input
              className="tape mt-0.5 block w-full"
              maxLength={500}
              value={words}
              onChange={(e) => setWords(e.target.value)}
            />
          </label>
          <div className="mt-2">
            <Row>
              <button type="button" className="press" onClick={() => note(one, "gone wrong", ago, words)}>
                Gone wrong: put it right, do it again
              </button>
              <button type="button" className="press" onClick={() => note(one, "skipped", ago, words)}>
                Leave it out
              </button>
            </Row>
          </div>
        </div>
      )}
      {error && <Failure error={error} />}
    </div>
  );
}
