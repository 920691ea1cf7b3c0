import { Link } from "react-router";
import type { Days, DaysReply } from "../api/client";
import { useNote } from "../api/days";
import { Alert, Fault } from "../parts/notices";

type Outside = Days["outside"][number];

/** What stands in the way, what was given up, what is assumed, what was done and is planned no more. */
export function Said({ days, moved, seeTo }: { days: Days; moved: string[]; seeTo: DaysReply["see_to"] }) {
  return (
    <div className="mt-3 flex flex-col gap-2">
      {seeTo.map((one) => (
        <p key={one.job} className="flex flex-wrap items-center gap-x-3 border-l-4 border-ink pl-2">
          <span className="bg-tape px-1.5 text-sm">{one.name}</span>
          <strong className="min-w-0 grow">{one.says}</strong>
          <Link to={`/jobs/${one.job}/finish`} className="press inline-flex items-center">
            See to it
          </Link>
        </p>
      ))}
      {moved.map((text) => (
        <p key={text} role="status" className="border-l-4 border-ink pl-2">
          <strong>Moved.</strong> {text}
        </p>
      ))}
      {days.first.map((text) => (
        <p key={text} className="said">
          <strong>Before anything else.</strong> {text}
        </p>
      ))}
      {days.problems.map((p) => (
        <Fault key={p.at + p.says} says={p.says} allowed={p.allowed} />
      ))}
      {days.given_up.map((g) => (
        <Alert key={g.says}>
          {g.says} <span className="font-normal">Planned instead: {g.instead}</span>
        </Alert>
      ))}
      {days.assumed.map((text) => (
        <p key={text} className="narrow border-l-4 border-soft pl-2 text-sm">
          {text}
        </p>
      ))}
      <Back list={days.outside} word="outside the plan" />
      <Back list={days.left_out} word="" />
    </div>
  );
}

const DID: Record<Outside["did"], string> = {
  begun: "Begun",
  done: "Done",
  skipped: "Left out",
  "gone wrong": "Gone wrong",
};

/** What was noted of operations that are not among those of the days; each can be taken back. */
function Back({ list, word }: { list: Outside[]; word: string }) {
  const { takeBack } = useNote();
  return list.map((o) => (
    <p key={o.event} className="flex flex-wrap items-center gap-x-3 border-l-4 border-soft pl-2">
      <span className="narrow min-w-0 grow text-sm">
        <strong>
          {DID[o.did]} {word}
        </strong>{" "}
        {o.says}, {o.at}.
      </span>
      <button
        type="button"
        className="press"
        aria-label={`Take back: ${o.says}`}
        onClick={() => takeBack(o.job, o.operation, o.says, o.event)}
      >
        Take back
      </button>
    </p>
  ));
}
