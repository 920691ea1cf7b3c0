import type { DayOperation, DaysChosen, DaysReply } from "../api/client";
import type { NotedHere } from "../api/days";
import { Told } from "../steps/Step";
import { pinned } from "./change";
import { Marking, stateOf, stateWord } from "./Marking";

interface Props {
  reply: DaysReply;
  chosen: DaysChosen;
  here: (one: DayOperation) => NotedHere | null | undefined;
  picked: string;
  onPick: (name: string) => void;
  onChange: (chosen: DaysChosen) => void;
}

const nameOf = (one: DayOperation) => `${one.job}|${one.operation.id}`;

/** Every visit to the bench with what is done in it: the strip as a list. */
export function Visits(props: Props) {
  const { days } = props.reply;
  const done = days.operations.filter((o) => o.state !== "planned");
  return (
    <>
      {done.length > 0 && (
        <section aria-labelledby="done" className="mt-6">
          <h3 id="done" className="border-b-2 border-ink text-lg font-bold">
            Done, and under way
          </h3>
          <List {...props} list={done} />
        </section>
      )}
      {days.visits.map((visit, n) => (
        <section key={visit.begins_min} aria-labelledby={`visit-${n}`} className="mt-6">
          <h3 id={`visit-${n}`} className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-ink">
            <span className="text-lg font-bold">{visit.day}</span>
            <span className="numeral text-lg">{visit.at}</span>
            <span className="narrow text-sm text-soft">{visit.hands_on} hands on</span>
          </h3>
          <List {...props} list={days.operations.filter((o) => o.visit === n)} />
          {visit.then_away && (
            <p className="narrow border-l-8 border-line py-2 pl-2">Then nothing for {visit.then_away}.</p>
          )}
        </section>
      ))}
    </>
  );
}

function List({ list, ...props }: Props & { list: DayOperation[] }) {
  const several = props.reply.days.jobs.length > 1;
  const names = new Map(props.reply.days.jobs.map((j) => [j.job, j.name]));
  return (
    <ol>
      {list.map((one) => {
        const name = nameOf(one);
        const open = props.picked === name;
        const word = stateWord(stateOf(one, props.here(one)));
        return (
          <li key={name} className="border-b border-line" id={`op-${name}`}>
            <button
              type="button"
              className="grid min-h-11 w-full grid-cols-[6.5rem_1fr] items-baseline gap-x-3 py-1.5 text-left hover:bg-enamel sm:grid-cols-[7rem_1fr_auto]"
              aria-expanded={open}
              onClick={() => props.onPick(open ? "" : name)}
            >
              <span className="numeral text-base">{one.at}</span>
              <span className="min-w-0">
                {one.critical && (
                  <span aria-hidden className="mr-1.5 inline-block h-1 w-4 bg-ink align-middle" />
                )}
                {several && <span className="bg-tape px-1.5 text-sm">{names.get(one.job)}</span>}{" "}
                {one.operation.zone_name && (
                  <span className="border border-line px-1.5 text-sm">{one.operation.zone_name}</span>
                )}{" "}
                <span
                  className={`font-semibold ${word === "done" || word === "left out" ? "line-through" : ""}`}
                >
                  {one.operation.says}
                </span>
                {word && <strong> {word}</strong>}
                {one.extra && <em className="narrow text-sm not-italic"> extra, by how the days fall</em>}
              </span>
              <span className="narrow text-sm text-soft max-sm:col-start-2">
                {one.pinned && "pinned "}
                {one.must_by && `by ${one.must_by}`}
              </span>
            </button>
            {open && <Panel {...props} one={one} />}
          </li>
        );
      })}
    </ol>
  );
}

/** One operation: what it waits for, how it is done, and where else it may go. */
function Panel({ one, reply, chosen, here, onChange }: Props & { one: DayOperation }) {
  const planned = one.state === "planned";
  const first = reply.days.operations.find(
    (o) => o.job === one.job && o.stint === one.stint && o.visit === one.visit,
  );
  const at = first ?? one;
  const move = (minutes: number) => {
    const begins = Math.round(at.begins_min) + minutes;
    onChange(pinned(chosen, at, { from: begins, until: begins }));
  };
  const open = reply.open_hours;
  return (
    <div className="border-l-4 border-ink bg-enamel p-3">
      {at.waits_for && (
        <p>
          <strong>Why then:</strong> {at.waits_for}
        </p>
      )}
      {one.must_by && (
        <p>
          <strong>By {one.must_by};</strong> later: {one.else_do}.
        </p>
      )}
      <div className="my-2">
        <Marking one={one} here={here(one)} />
      </div>
      <Told operation={one.operation} job={one.job} />
      {planned && (
        <fieldset className="mt-3 border-t border-line pt-2">
          <legend className="narrow text-sm font-semibold text-soft">Move it</legend>
          <div className="flex flex-wrap items-end gap-2">
            <button type="button" className="press" onClick={() => move(0)}>
              Pin it at {at.at.slice(0, 5)}
            </button>
            <button type="button" className="press" onClick={() => move(-15)}>
              15 min earlier
            </button>
            <button type="button" className="press" onClick={() => move(15)}>
              15 min later
            </button>
            <label className="narrow text-sm font-semibold text-soft">
              Only in
              <select
                className="tape block font-semibold text-ink"
                value=""
                onChange={(e) => {
                  const s = open.find((o) => String(o.from_min) === e.target.value);
                  if (s) onChange(pinned(chosen, at, { from: s.from_min, until: s.until_min }));
                }}
              >
                <option value="">any hours</option>
                {open.map((s) => (
                  <option key={s.from_min} value={s.from_min}>
                    {s.says}
                  </option>
                ))}
              </select>
            </label>
            {at.pinned && (
              <button type="button" className="press" onClick={() => onChange(pinned(chosen, at, null))}>
                Let it go
              </button>
            )}
          </div>
        </fieldset>
      )}
    </div>
  );
}
