import { LABEL } from "./notices";

/** One thing that is so or not. */
export function Tick({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <label className="flex min-h-11 items-center gap-2 leading-tight">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-dark"
        checked={value}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}

interface TicksProps<T extends string> {
  legend: string;
  options: readonly T[];
  value: readonly T[];
  onChange: (value: T[]) => void;
  /** For lists of long words: one under the other. */
  long?: boolean;
}

/** Things that are so or not, any number of them. They come back in the order of the options. */
export function Ticks<T extends string>({ legend, options, value, onChange, long = false }: TicksProps<T>) {
  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>{legend}</legend>
      <div className={`grid gap-x-3 ${long ? "" : "grid-cols-2"}`}>
        {options.map((option) => (
          <Tick
            key={option}
            label={option}
            value={value.includes(option)}
            onChange={(on) => onChange(options.filter((o) => (o === option ? on : value.includes(o))))}
          />
        ))}
      </div>
    </fieldset>
  );
}
