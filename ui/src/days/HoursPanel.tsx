import type { DaysChoices, DaysChosen, RoomNow } from "../api/client";
import { AirStrip } from "../drawings/AirStrip";
import { Choice, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { percent, say } from "../parts/say";

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const MOST_STRETCHES = 6;

type Week = DaysChosen["table"]["week"];
type Hours = Week[number][number];

const clock = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
const minute = (text: string) => {
  const [hour = "", min = ""] = text.split(":");
  return Number(hour) * 60 + Number(min);
};

interface Props {
  choices: DaysChoices;
  room: RoomNow | undefined;
  onChange: (chosen: DaysChosen) => void;
}

/** When somebody is at the bench, how many, and where it stands. */
export function HoursPanel({ choices, room, onChange }: Props) {
  const { chosen } = choices;
  const { table } = chosen;
  const change = (made: Partial<DaysChosen["table"]>) =>
    onChange({ ...chosen, table: { ...table, ...made } });
  const setDay = (n: number, hours: Hours[]) =>
    change({ week: table.week.map((day, i) => (i === n ? hours : day)) });
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <section aria-labelledby="hours" className="mt-8 border-t-2 border-ink pt-3">
      <h2 id="hours" className="text-lg font-bold">
        Hours and place
      </h2>
      <div className="grid gap-8 lg:grid-cols-2">
        <div>
          {DAYS.map((name, n) => (
            <fieldset
              key={name}
              className="grid items-center gap-x-2 border-t border-line py-1.5 sm:grid-cols-[6rem_1fr]"
            >
              <legend className="sr-only">{name}</legend>
              <span aria-hidden className="font-semibold">
                {name}
              </span>
              <div className="flex flex-wrap items-center gap-2">
                {(table.week[n] ?? []).map((h, i, all) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: stretches of a day are told apart by their order
                  <span key={i} className="flex flex-wrap items-center gap-1">
                    <Time
                      label={`${name}, from`}
                      value={h.from_min}
                      onChange={(from_min) => setDay(n, all.with(i, { ...h, from_min }))}
                    />
                    –
                    <Time
                      label={`${name}, until`}
                      value={h.until_min % 1440}
                      onChange={(m) => setDay(n, all.with(i, { ...h, until_min: m || 1440 }))}
                    />
                    <button
                      type="button"
                      className="press px-2"
                      aria-label={`${name}: not ${clock(h.from_min)}–${clock(h.until_min)}`}
                      onClick={() =>
                        setDay(
                          n,
                          all.filter((_, k) => k !== i),
                        )
                      }
                    >
                      ×
                    </button>
                  </span>
                ))}
                {(table.week[n]?.length ?? 0) < MOST_STRETCHES && (
                  <button
                    type="button"
                    className="press"
                    aria-label={`${name}: more hours`}
                    onClick={() => setDay(n, [...(table.week[n] ?? []), after(table.week[n] ?? [])])}
                  >
                    +
                  </button>
                )}
                {!table.week[n]?.length && <span className="narrow text-sm text-soft">nobody there</span>}
              </div>
            </fieldset>
          ))}
          <DaysOff off={table.days_off} onChange={(days_off) => change({ days_off })} />
        </div>
        <div className="flex flex-col gap-3">
          <div className="grid gap-3 sm:grid-cols-2">
            <Stepper
              label="Painters"
              value={table.painters}
              min={1}
              max={6}
              onChange={(painters) => change({ painters })}
            />
            <Stepper
              label="Places to lie flat"
              value={table.flat_places}
              min={0}
              max={50}
              shown={table.flat_places || "as many as it takes"}
              onChange={(flat_places) => change({ flat_places })}
            />
          </div>
          {table.flat_places > 0 && <Flat {...{ choices, onChange }} />}
          <Choice
            label="Once nothing is late"
            value={table.goal}
            options={[
              { slug: "finish", name: "finish as early as can be, then come seldom" },
              { slug: "visits", name: "come as seldom as can be, then finish early" },
            ]}
            onChange={(goal) => change({ goal: goal as typeof table.goal })}
          />
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-6"
              checked={table.by_daylight}
              onChange={(e) => change({ by_daylight: e.target.checked })}
            />
            Colours by daylight, where nothing is lost by it
          </label>
          <Choice
            label="Room it dries in"
            value={chosen.profile}
            options={[
              { slug: "", name: "A room that stays as it was set" },
              ...choices.profiles.map((p) => ({ slug: p.slug, name: p.name })),
            ]}
            onChange={(profile) => onChange({ ...chosen, profile })}
          />
          {room && (
            <div>
              <Air room={room} />
              <AirStrip drawing={room.drawing} />
            </div>
          )}
          <div className="flex flex-wrap items-center gap-3">
            <p className="narrow text-sm">
              <span className={LABEL}>The clock on the wall</span> {table.zone}
            </p>
            {here !== table.zone && (
              <button type="button" className="press" onClick={() => change({ zone: here })}>
                Use {here}
              </button>
            )}
          </div>
        </div>
      </div>
    </section>
  );
}

/** A stretch after those of a day. */
function after(day: Hours[]): Hours {
  const last = day.at(-1);
  if (!last) return { from_min: 18 * 60 + 30, until_min: 21 * 60 + 30 };
  const from = Math.min(last.until_min + 60, 1440 - 60);
  return { from_min: from, until_min: Math.min(from + 120, 1440) };
}

function Time(props: { label: string; value: number; onChange: (minute: number) => void }) {
  return (
    <input
      type="time"
      className="tape numeral text-lg"
      aria-label={props.label}
      value={clock(props.value)}
      onChange={(e) => e.target.value && props.onChange(minute(e.target.value))}
    />
  );
}

function DaysOff({ off, onChange }: { off: string[]; onChange: (off: string[]) => void }) {
  return (
    <div className="border-t border-line py-2">
      <label className={LABEL}>
        Days off
        <input
          type="date"
          className="tape ml-2 text-ink"
          value=""
          onChange={(e) =>
            e.target.value && !off.includes(e.target.value) && onChange([...off, e.target.value].sort())
          }
        />
      </label>
      <ul className="mt-1 flex flex-wrap gap-1">
        {off.map((day) => (
          <li key={day}>
            <button
              type="button"
              className="press"
              aria-label={`Not off: ${day}`}
              onClick={() => onChange(off.filter((d) => d !== day))}
            >
              {day} ×
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** How many places each zone takes while it lies flat. */
function Flat({ choices, onChange }: Omit<Props, "room">) {
  const { chosen } = choices;
  return (
    <div className="grid gap-2 sm:grid-cols-2">
      {choices.jobs.flatMap((job) =>
        job.zones.map((zone) => {
          const one = chosen.jobs.find((j) => j.job === job.id);
          return (
            <Stepper
              key={`${job.id} ${zone.zone}`}
              label={`${job.name}: ${zone.name.toLowerCase()} lies flat on`}
              value={one?.flat[zone.zone] ?? 0}
              min={0}
              max={chosen.table.flat_places}
              shown={one?.flat[zone.zone] ? `${one.flat[zone.zone]} places` : "none: it stands"}
              onChange={(places) =>
                onChange({
                  ...chosen,
                  jobs: chosen.jobs.map((j) =>
                    j.job === job.id ? { ...j, flat: { ...j.flat, [zone.zone]: places } } : j,
                  ),
                })
              }
            />
          );
        }),
      )}
    </div>
  );
}

const STATE = {
  none: "No thermo-hygrometer is connected.",
  listening: "The thermo-hygrometer is heard.",
  gone: "The thermo-hygrometer is not heard any more.",
};

/** The air as it is, where it is known from, and what is assumed of it. */
export function Air({ room }: { room: RoomNow }) {
  const last = room.readings.at(-1);
  return (
    <div className="border-l-4 border-line pl-3">
      <p>
        {room.now ? (
          <>
            <span className="numeral text-xl">{say(room.now.temperature_c)} °C</span>{" "}
            <span className="numeral ml-2 text-xl">{percent(Math.round(room.now.humidity * 100) / 100)}</span>
          </>
        ) : (
          <strong>How the air is now is not known.</strong>
        )}
      </p>
      <p className="narrow text-sm">
        {STATE[room.state]} Ahead: {room.says}.
      </p>
      {last?.doubt && (
        <p className="narrow text-sm">
          Its last reading, {say(last.reading.temperature_c)} °C and{" "}
          {percent(Math.round(last.reading.humidity * 100) / 100)}, is not believed: {last.doubt}.
        </p>
      )}
    </div>
  );
}
