import { LABEL } from "./notices";

interface TicksProps<T extends string> {
  legend: string;
  options: readonly T[];
  value: readonly T[];
  onChange: (value: T[]) => void;
  /** For lists of long words: one under the other on a phone. */
  long?: boolean;
}

/** Things that are so or not, any number of them. They come back in the order of the options. */
export function Ticks<T extends string>({ legend, options, value, onChange, long = false }: TicksProps<T>) {
  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>{legend}</legend>
      <div className={`grid gap-x-3 ${long ? "sm:grid-cols-2" : "grid-cols-2"}`}>
        {options.map((option) => (
          <label key={option} className="flex min-h-11 items-center gap-2 leading-tight">
            <input
              type="checkbox"
              className="size-6 shrink-0 accent-dark"
              checked={value.includes(option)}
              onChange={(e) =>
                onChange(options.filter((o) => (o === option ? e.target.checked : value.includes(o))))
              }
            />
            {option}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
