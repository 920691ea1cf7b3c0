import { useEffect, useId, useRef, useState } from "react";
import { answer, api, type Coverage, Refused } from "../api/client";
import { FieldError } from "../parts/fields";
import { LABEL } from "../parts/notices";

interface CoverageFieldProps {
  label: string;
  onRead: (coverage: Coverage | null) => void;
}

/** A coverage as its label prints it, said the other ways before it is stored. */
export function CoverageField({ label, onRead }: CoverageFieldProps) {
  const id = useId();
  const [typed, setTyped] = useState("");
  const [read, setRead] = useState<Coverage | null>(null);
  const [wrong, setWrong] = useState<{ says: string; allowed: string; readings: string[] } | null>(null);
  const sequence = useRef(0);
  const tell = useRef(onRead);
  tell.current = onRead;
  useEffect(() => tell.current(read), [read]);

  async function take(text: string) {
    setTyped(text);
    sequence.current += 1;
    const mine = sequence.current;
    setRead(null);
    setWrong(null);
    if (!text.trim()) return;
    try {
      const coverage = await answer(api.POST("/api/coverage", { body: { typed: text } }));
      if (mine === sequence.current) setRead(coverage);
    } catch (error) {
      if (mine !== sequence.current) return;
      const problem = error instanceof Refused ? error.problem : null;
      const fault = problem?.faults?.[0];
      setWrong({
        says: fault?.says ?? (error as Error).message,
        allowed: fault?.allowed ?? "",
        readings: problem?.readings ?? [],
      });
    }
  }

  return (
    <div className="min-w-0">
      <label htmlFor={id} className={LABEL}>
        {label}
      </label>
      <input
        id={id}
        className="tape numeral w-full text-lg"
        value={typed}
        placeholder="12 m²/l"
        autoComplete="off"
        aria-invalid={wrong ? true : undefined}
        aria-describedby={wrong ? `${id}-error` : read ? `${id}-also` : undefined}
        onChange={(e) => void take(e.target.value)}
      />
      {read && (
        <p id={`${id}-also`} className="narrow text-sm">
          That is {read.also}.
        </p>
      )}
      {wrong && <FieldError id={`${id}-error`} says={wrong.says} allowed={wrong.allowed} />}
      {wrong && wrong.readings.length > 0 && (
        <div className="mt-1 flex flex-wrap gap-2">
          {wrong.readings.map((reading) => (
            <button key={reading} type="button" className="press text-sm" onClick={() => void take(reading)}>
              {reading}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
