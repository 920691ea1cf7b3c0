import { useId } from "react";
import { FieldError } from "./fields";
import { useTyped } from "./useTyped";

interface TextFieldProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  /** An empty name is not kept: the field says so, and the last one stays. */
  required?: boolean;
  placeholder?: string;
  max?: number;
  /** For the names of things that head a screen. */
  strong?: boolean;
  /** The label is for screen readers only. */
  bare?: boolean;
  type?: "text" | "search";
}

/** Words the painter writes, on tape. */
export function TextField(props: TextFieldProps) {
  const {
    label,
    value,
    onChange,
    required = false,
    placeholder,
    max = 120,
    strong,
    bare,
    type = "text",
  } = props;
  const id = useId();
  const [text, setText] = useTyped(value);
  const missing = required && !text.trim();
  return (
    <div className="min-w-0 grow">
      <label htmlFor={id} className={bare ? "sr-only" : "narrow block text-sm font-semibold text-soft"}>
        {label}
      </label>
      <input
        id={id}
        type={type}
        className={`tape w-full ${strong ? "text-lg font-bold" : ""}`}
        value={text}
        placeholder={placeholder}
        maxLength={max}
        autoComplete="off"
        aria-invalid={missing || undefined}
        aria-describedby={missing ? `${id}-error` : undefined}
        onChange={(e) => {
          setText(e.target.value);
          if (required && !e.target.value.trim()) return;
          onChange(e.target.value);
        }}
      />
      {missing && (
        <FieldError id={`${id}-error`} says="It needs a name." allowed={`1 to ${max} characters`} />
      )}
    </div>
  );
}
