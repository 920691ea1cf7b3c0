import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { answer, api, type Length, NoAnswer, Refused } from "../api/client";
import { LABEL } from "./notices";
import { readWithin } from "./typed";

export interface FieldFault {
  says: string;
  allowed: string;
}

/** What is wrong with a field, under it, tied to it for screen readers. */
export function FieldError({ id, says, allowed }: FieldFault & { id: string }) {
  return (
    <p id={id} role="alert" className="narrow mt-1 border-l-4 border-ink pl-2 text-sm font-semibold">
      {says} {allowed && <span className="font-normal">Allowed: {allowed}.</span>}
    </p>
  );
}

interface LengthFieldProps {
  label: string;
  value: Length | undefined;
  fault?: FieldFault | undefined;
  /** The least and the most it can be, mm: an unusual size without a unit is asked about. */
  within?: readonly [number, number];
  onChange: (length: Length) => void;
  /** Keeps what was typed while nobody could read it, until somebody can. */
  onUnread?: (typed: string) => void;
}

/** What is said beside a size that nobody measured, or whose words were once read otherwise. */
const SAID_OF = { typed: "", usual: "usual", reread: "look at it again" } as const;

/** A length, typed the way people say it. Text that cannot be read stays in the field, with what is wrong. */
export function LengthField({ label, value, fault, within, onChange, onUnread }: LengthFieldProps) {
  const id = useId();
  const [text, setText] = useState(value?.typed ?? "");
  const [unread, setUnread] = useState<(FieldFault & { readings: string[] }) | null>(null);
  const [away, setAway] = useState(false);
  const sequence = useRef(0);
  const given = useRef(value?.typed ?? "");

  useEffect(() => {
    // Follow the job when it changes by itself (undo), not while this field is being typed in.
    const typed = value?.typed ?? "";
    if (typed !== given.current) {
      given.current = typed;
      sequence.current += 1;
      setText(typed);
      setUnread(null);
      setAway(false);
    }
  }, [value?.typed]);

  async function read(typed: string) {
    setText(typed);
    sequence.current += 1;
    const mine = sequence.current;
    try {
      const length = await answer(
        api.POST("/api/lengths", {
          body: { typed, least_mm: within?.[0] ?? 0, most_mm: within?.[1] ?? null },
        }),
      );
      if (mine !== sequence.current) return;
      setUnread(null);
      setAway(false);
      given.current = length.typed;
      onChange(length);
    } catch (error) {
      if (mine !== sequence.current) return;
      if (onUnread && error instanceof NoAnswer) {
        setUnread(null);
        setAway(true);
        return;
      }
      const problem = error instanceof Refused ? error.problem : null;
      const first = problem?.faults?.[0];
      const says = first?.says ?? (error as Error).message;
      setUnread({ says, allowed: first?.allowed ?? "", readings: problem?.readings ?? [] });
    }
  }

  // A field nobody has typed in yet does not complain that it is empty.
  const shown = unread ?? (text ? fault : undefined);
  const usual = value?.source === "usual" && !unread;
  const mark = unread || !value ? "" : SAID_OF[value.source ?? "typed"];
  return (
    <div className="min-w-0">
      <div className="flex justify-between gap-2">
        <label htmlFor={id} className={LABEL}>
          {label}
        </label>
        {mark && (
          <span id={`${id}-mark`} className="narrow text-sm">
            {mark}
          </span>
        )}
      </div>
      <input
        id={id}
        className={`tape numeral w-full text-lg ${usual ? "text-soft" : ""}`}
        value={text}
        autoComplete="off"
        enterKeyHint="next"
        // Its unit becomes part of what was typed: shown once the field is left.
        onBlur={() => {
          if (away && text.trim()) onUnread?.(text);
          else if (!unread) setText(given.current);
        }}
        aria-invalid={shown ? true : undefined}
        aria-describedby={shown ? `${id}-error` : mark ? `${id}-mark` : undefined}
        onChange={(e) => void read(e.target.value)}
      />
      {away && (
        <p role="status" className="narrow text-sm">
          Kept as it is typed: it is read when Lumso answers.
        </p>
      )}
      {shown && <FieldError id={`${id}-error`} says={shown.says} allowed={shown.allowed} />}
      {unread?.readings.length ? (
        <div className="mt-1 flex gap-2">
          {unread.readings.map((reading) => (
            <button key={reading} type="button" className="press" onClick={() => void read(reading)}>
              {reading}
            </button>
          ))}
        </div>
      ) : null}
    </div>
  );
}

interface NumberFieldProps {
  label: string;
  value: number;
  unit: string;
  min: number;
  max: number;
  onChange: (value: number) => void;
}

/** A number with its unit. What is not a number, or out of bounds, stays in the field, with what is allowed. */
export function NumberField({ label, value, unit, min, max, onChange }: NumberFieldProps) {
  const [text, setText] = useState(String(value));
  const given = useRef(value);
  useEffect(() => {
    if (value !== given.current) {
      given.current = value;
      setText(String(value));
    }
  }, [value]);
  const meant = readWithin(text, min, max);
  return (
    <UnitInput
      label={label}
      unit={unit}
      text={text}
      fault={
        meant.length === 1
          ? null
          : meant.length
            ? { says: `${text} can be read in two ways.`, allowed: `${meant.join(" or ")} ${unit}` }
            : {
                says: text.trim() ? `${text} cannot be used.` : "Type a number.",
                allowed: `${min} to ${max} ${unit}`,
              }
      }
      onText={(typed) => {
        setText(typed);
        const [number, other] = readWithin(typed, min, max);
        if (number !== undefined && other === undefined) {
          given.current = number;
          onChange(number);
        }
      }}
    />
  );
}

interface UnitInputProps {
  label: string;
  unit: string;
  text: string;
  fault: FieldFault | null;
  onText: (typed: string) => void;
  inputMode?: "decimal" | "text";
  onFocus?: () => void;
  onBlur?: () => void;
}

/** A field with its unit behind it and what is wrong under it. */
export function UnitInput({
  label,
  unit,
  text,
  fault,
  onText,
  inputMode = "decimal",
  ...left
}: UnitInputProps) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={LABEL}>
        {label}
      </label>
      <span className="flex items-baseline gap-2">
        <input
          id={id}
          className="tape numeral w-full text-lg"
          inputMode={inputMode}
          value={text}
          autoComplete="off"
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? `${id}-error` : undefined}
          onChange={(e) => onText(e.target.value)}
          {...left}
        />
        <span className="text-sm">{unit}</span>
      </span>
      {fault && <FieldError id={`${id}-error`} says={fault.says} allowed={fault.allowed} />}
    </div>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: { slug: string; name: string }[];
  onChange: (slug: string) => void;
}

/** One of a list. */
export function Choice({ label, value, options, onChange }: ChoiceProps) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={LABEL}>
        {label}
      </label>
      <select
        id={id}
        className="tape narrow w-full font-semibold"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
        {options.some((o) => o.slug === value) || <option value={value}>{value}</option>}
        {options.map((option) => (
          <option key={option.slug} value={option.slug}>
            {option.name}
          </option>
        ))}
      </select>
    </div>
  );
}

interface StepperProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  shown?: ReactNode;
  onChange: (value: number) => void;
}

/** A count or a share, changed by steps that a wet thumb can hit. */
export function Stepper({ label, value, min, max, step = 1, shown, onChange }: StepperProps) {
  const to = (next: number) => onChange(Math.min(max, Math.max(min, Math.round(next / step) * step)));
  const button = (name: string, sign: string, next: number, stop: boolean) => (
    <button
      type="button"
      className="press text-lg"
      aria-label={`${label}: ${name}`}
      disabled={stop}
      onClick={() => to(next)}
    >
      {sign}
    </button>
  );
  return (
    <fieldset className="min-w-0">
      <legend className={LABEL}>{label}</legend>
      <div className="flex items-stretch">
        {button("less", "−", value - step, value <= min)}
        <output className="numeral flex min-w-16 grow items-center justify-center bg-tape px-3 text-lg">
          {shown ?? value}
        </output>
        {button("more", "+", value + step, value >= max)}
      </div>
    </fieldset>
  );
}
