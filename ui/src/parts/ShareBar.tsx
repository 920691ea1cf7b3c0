import { percent } from "./say";

interface Slice {
  key: string;
  name: string;
  hex: string;
  share: number;
}

/** What a mix is made of, as one strip true to its shares. */
export function ShareBar({ slices, tall = false }: { slices: Slice[]; tall?: boolean }) {
  return (
    <div
      role="img"
      aria-label={slices.map((s) => `${s.name} ${percent(s.share)}`).join(", ")}
      className={`flex border-2 border-ink ${tall ? "h-11" : "h-6"}`}
    >
      {slices.map((s, i) => (
        <span
          key={s.key}
          className={i ? "border-l-2 border-ink" : ""}
          style={{ width: `${s.share * 100}%`, background: s.hex }}
        />
      ))}
    </div>
  );
}
