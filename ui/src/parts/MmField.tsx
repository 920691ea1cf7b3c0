import { useEffect, useRef, useState } from "react";
import { answer, api, NoAnswer, Refused } from "../api/client";
import { useSettings } from "../api/workshop";
import { type FieldFault, UnitInput } from "./fields";
import { say } from "./say";
import { readingsOf, readWithin } from "./typed";

interface MmFieldProps {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (mm: number) => void;
}

/**
 * A measure in mm, which may be typed in any unit: 63.5, 6 cm, 2 1/2". A number alone is mm. What cannot be read, or is
 * out of bounds, stays in the field, with what is allowed.
 */
export function MmField({ label, value, min, max, onChange }: MmFieldProps) {
  const [text, setText] = useState(String(value));
  const [fault, setFault] = useState<FieldFault | null>(null);
  const given = useRef(value);
  const sequence = useRef(0);
  /** Whether what was typed is being read, and whether the field was left meanwhile. */
  const asking = useRef(false);
  const left = useRef(false);
  const inches = useSettings().data?.measures === "us";
  useEffect(() => {
    if (value !== given.current) {
      given.current = value;
      sequence.current += 1;
      setText(String(value));
      setFault(null);
    }
  }, [value]);
  const bounds = `${say(min)} to ${say(max)} mm`;

  function take(mm: number, typed: string) {
    const fits = mm >= min && mm <= max;
    setFault(fits ? null : { says: `${typed.trim()} cannot be used.`, allowed: bounds });
    if (!fits) return;
    given.current = mm;
    onChange(mm);
    if (left.current) setText(String(mm));
  }

  async function read(typed: string) {
    setText(typed);
    sequence.current += 1;
    const mine = sequence.current;
    asking.current = false;
    const numbers = readingsOf(typed);
    const [number, other] = numbers.length > 1 ? readWithin(typed, min, max) : numbers;
    if (other !== undefined)
      return setFault({
        says: `${typed.trim()} can be read in two ways.`,
        allowed: `${number} or ${other} mm`,
      });
    if (number !== undefined) return take(number, typed);
    if (!typed.trim()) return setFault({ says: "Type a measure.", allowed: bounds });
    asking.current = true;
    try {
      const length = await answer(api.POST("/api/lengths", { body: { typed, least_mm: 0, most_mm: null } }));
      if (mine === sequence.current) take(Math.round(length.mm * 1e4) / 1e4, typed);
    } catch (error) {
      if (mine === sequence.current) setFault(whyUnread(error, bounds));
    } finally {
      if (mine === sequence.current) asking.current = false;
    }
  }

  return (
    <UnitInput
      label={label}
      unit="mm"
      text={text}
      fault={fault}
      inputMode={inches ? "text" : "decimal"}
      onText={(typed) => void read(typed)}
      onFocus={() => {
        left.current = false;
      }}
      // What was typed in another unit becomes mm once the field is left.
      onBlur={() => {
        left.current = true;
        if (!fault && !asking.current) setText(String(given.current));
      }}
    />
  );
}

/** Why a measure could not be read. */
function whyUnread(error: unknown, bounds: string): { says: string; allowed: string } {
  if (error instanceof NoAnswer)
    return { says: "Other units are read when Lumso answers again.", allowed: `${bounds} as a number` };
  const first = error instanceof Refused ? error.problem.faults?.[0] : undefined;
  return { says: first?.says ?? (error as Error).message, allowed: first?.allowed ?? bounds };
}
