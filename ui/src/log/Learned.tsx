import { Link } from "react-router";
import type { FactorLine, LessonLine } from "../api/client";
import { useLearn, useLearned } from "../api/log";
import { Failure } from "../parts/Failure";
import { Loading } from "../parts/notices";
import { clockTime } from "../parts/say";

const WIDE = 520;
/** From a third to three times, by the logarithm. */
const at = (ratio: number) => ((Math.log(Math.min(Math.max(ratio, 1 / 3), 3)) / Math.log(3) + 1) / 2) * WIDE;
const whole = (share: number) => `${Math.round(share * 100)} %`;
const MARKS = [0.5, 0.7, 1, 1.4, 2];

/** What the log says of each mix, by what, and whether it is to count. */
export function Learned() {
  const learned = useLearned();
  const learn = useLearn();
  if (learned.error && !learned.data)
    return <Failure error={learned.error} onRetry={() => void learned.refetch()} />;
  if (!learned.data) return <Loading>Reading what the log says…</Loading>;
  const { lessons, waits, paces, chosen, revision } = learned.data;
  const turn = (of: string, on: boolean) =>
    learn.mutate({ ...chosen, off: on ? chosen.off.filter((o) => o !== of) : [...chosen.off, of], revision });
  const confirm = (pot: string, yes: boolean) =>
    learn.mutate({
      ...chosen,
      confirmed: yes ? [...chosen.confirmed, pot] : chosen.confirmed.filter((p) => p !== pot),
      revision,
    });
  if (!lessons.length && !waits.length && !paces.length)
    return (
      <p className="mt-6 max-w-xl">
        Nothing yet. When a batch was poured, its coats laid and what was left of it weighed or judged, Lumso
        compares what the surface took with what was planned, and plans the next one by it.
      </p>
    );
  return (
    <div>
      <p className="narrow mt-3 max-w-2xl">
        What surfaces took of a mix put on one way, as a multiple of what is planned without the log. The bar
        holds nine of ten next jobs, an estimate; the amounts planned go by the mark in it.
      </p>
      <ul className="mt-2 border-t-2 border-ink">
        {lessons.map((line) => (
          <Lesson key={line.lesson.of} line={line} onTurn={turn} onConfirm={confirm} />
        ))}
      </ul>
      <Factors name="How long it dries here" says="times as long as planned" list={waits} onTurn={turn} />
      <Factors name="How fast you are" says="times as fast as planned" list={paces} onTurn={turn} />
    </div>
  );
}

/** Factors by what was seen: each with how far it is known, and whether it is planned by. */
function Factors(props: {
  name: string;
  says: string;
  list: FactorLine[];
  onTurn: (of: string, on: boolean) => void;
}) {
  if (!props.list.length) return null;
  return (
    <section aria-label={props.name}>
      <h2 className="mt-6 border-b-2 border-ink text-lg font-bold">{props.name}</h2>
      <ul>
        {props.list.map(({ key, name, factor: f, on }) => (
          <li
            key={key}
            className="flex flex-wrap items-center justify-between gap-3 border-b border-line py-2"
          >
            <span>
              <strong>{name}</strong> <span className="numeral text-xl">× {f.factor.toFixed(2)}</span>{" "}
              <span className="narrow text-sm">
                {props.says}, from {f.count === 1 ? "one sighting" : `${f.count} sightings`}, known to about{" "}
                {whole(f.off)}
              </span>
            </span>
            <button
              type="button"
              className="press"
              aria-pressed={on}
              aria-label={`Plan by it: ${name}`}
              onClick={() => props.onTurn(key, !on)}
            >
              {on ? "Planned by" : "Not planned by"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface Props {
  line: LessonLine;
  onTurn: (of: string, on: boolean) => void;
  onConfirm: (pot: string, yes: boolean) => void;
}

function Lesson({ line: { lesson, recipe, technique }, onTurn, onConfirm }: Props) {
  const { learned: l } = lesson;
  return (
    <li className="border-b border-ink py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-lg font-bold">
          {recipe}, <span className="font-normal">{technique}</span>
        </h2>
        <button
          type="button"
          className="press"
          aria-pressed={lesson.on}
          aria-label={`Plan by it: ${recipe}, ${technique}`}
          onClick={() => onTurn(lesson.of, !lesson.on)}
        >
          {lesson.on ? "Planned by" : "Not planned by"}
        </button>
      </div>
      {l ? (
        <p>
          <span className="numeral text-2xl">× {l.factor.toFixed(2)}</span>{" "}
          <span className="narrow">
            from {l.jobs === 1 ? "one job" : `${l.jobs} jobs`}, known to about {whole(l.off)}; one job is off
            it by about {whole(l.spread)}
          </span>
        </p>
      ) : (
        <p>Nothing counts yet.</p>
      )}
      <svg
        viewBox={`-10 -6 ${WIDE + 20} 68`}
        role="img"
        aria-label={
          l
            ? `Nine of ten next jobs between ${lesson.low.toFixed(2)} and ${lesson.high.toFixed(2)} times`
            : ""
        }
        className="mt-1 w-full max-w-2xl"
      >
        {l && (
          <>
            <rect
              x={at(lesson.low)}
              y={6}
              width={at(lesson.high) - at(lesson.low)}
              height={22}
              fill="var(--color-line)"
              opacity={lesson.on ? 1 : 0.4}
            />
            <line
              x1={at(l.factor)}
              x2={at(l.factor)}
              y1={0}
              y2={34}
              stroke="var(--color-ink)"
              strokeWidth="4"
            />
          </>
        )}
        <line x1={0} x2={WIDE} y1={34} y2={34} stroke="var(--color-ink)" strokeWidth="2" />
        {MARKS.map((m) => (
          <g key={m}>
            <line
              x1={at(m)}
              x2={at(m)}
              y1={34}
              y2={m === 1 ? 44 : 40}
              stroke="var(--color-ink)"
              strokeWidth="2"
            />
            <text x={at(m)} y={55} textAnchor="middle" fontSize="13" className="narrow">
              {m === 1 ? "as planned" : `${m} ×`}
            </text>
          </g>
        ))}
        {lesson.evidence.map((e) => (
          <circle
            key={e.ratio.pot}
            cx={at(e.ratio.ratio)}
            cy={17}
            r={5}
            fill={e.counts ? "var(--color-enamel)" : "none"}
            stroke="var(--color-ink)"
            strokeWidth="2"
            strokeDasharray={e.counts ? undefined : "3 3"}
          />
        ))}
      </svg>
      <details>
        <summary className="inline-flex min-h-11 items-center underline">By what</summary>
        <ul className="narrow text-sm">
          {lesson.evidence.map((e) => (
            <li key={e.ratio.pot} className="flex flex-wrap items-center gap-x-3 border-b border-line py-1">
              <span className="numeral w-14">{e.ratio.ratio.toFixed(2)} ×</span>
              <Link to={`/log/pots/${e.ratio.pot}`} className="underline">
                {clockTime(e.ratio.at_min)}
              </Link>
              {e.doubt && <span className="font-semibold">{e.doubt}</span>}
              {e.doubt && (
                <button
                  type="button"
                  className="press"
                  aria-pressed={e.counts}
                  onClick={() => onConfirm(e.ratio.pot, !e.counts)}
                >
                  {e.counts ? "It was so" : "It was so: count it"}
                </button>
              )}
            </li>
          ))}
        </ul>
      </details>
    </li>
  );
}
