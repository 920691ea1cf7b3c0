import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { useCatalogue } from "../api/workshop";
import { found, lastUsed, type Option, usedLast } from "./finding";

export interface ChooserProps<O extends Option> {
  label: string;
  options: readonly O[];
  /** What kind of thing is chosen: the last used of it come first. */
  of: string;
  value?: string;
  picture?: (option: O) => ReactNode;
  placeholder?: string;
  /** Takes the focus when it appears. */
  focused?: boolean;
  /** In a grid of pictures, or a list. */
  wide?: boolean;
  onChoose: (slug: string) => void;
  /** What is done with words that no name answers to. */
  otherwise?: { says: string; take: (typed: string) => void };
}

/** One of a list, found by a few letters: type, arrow, Enter; or look and press. */
export function Chooser<O extends Option>(props: ChooserProps<O>) {
  const {
    label,
    options,
    of,
    value = "",
    picture,
    placeholder,
    focused = false,
    wide = false,
    onChoose,
    otherwise,
  } = props;
  const id = useId();
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const [recent] = useState(() => lastUsed(of));
  const synonyms = useCatalogue().data?.synonyms ?? [];
  const input = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLDivElement>(null);
  const shown = found(options, typed, synonyms, recent);
  const active = shown[Math.min(at, shown.length - 1)];
  useEffect(() => {
    if (focused) input.current?.focus();
  }, [focused]);

  function move(to: number) {
    const next = Math.max(0, Math.min(shown.length - 1, to));
    setAt(next);
    list.current?.querySelector(`[data-at="${next}"]`)?.scrollIntoView({ block: "nearest" });
  }

  function choose(slug: string) {
    usedLast(of, slug);
    onChoose(slug);
  }

  return (
    <div className="flex min-h-0 flex-col gap-2">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        ref={input}
        id={id}
        role="combobox"
        aria-expanded="true"
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={active ? `${id}-${active.slug}` : undefined}
        className="tape w-full text-lg"
        value={typed}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(e) => {
          setTyped(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown" || e.key === "ArrowUp") {
            e.preventDefault();
            move(at + (e.key === "ArrowDown" ? 1 : -1));
          }
          if (e.key === "Enter") {
            e.preventDefault();
            if (active) choose(active.slug);
            else if (typed.trim()) otherwise?.take(typed);
          }
        }}
      />
      <p role="status" className="sr-only">
        {typed && (shown.length === 1 ? "One found" : `${shown.length} found`)}
      </p>
      <div
        ref={list}
        id={`${id}-list`}
        role="listbox"
        aria-label={label}
        className={`min-h-0 overflow-auto ${wide ? "grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-1" : ""}`}
      >
        {shown.map((option, i) => (
          // The field keeps the focus and moves through the list: options are pressed by pointer only.
          // biome-ignore lint/a11y/useKeyWithClickEvents: keys are the field's
          <div
            key={option.slug}
            id={`${id}-${option.slug}`}
            data-at={i}
            data-slug={option.slug}
            role="option"
            tabIndex={-1}
            aria-selected={option.slug === active?.slug}
            onClick={() => choose(option.slug)}
            className={`min-h-11 cursor-pointer outline-offset-[-3px] hover:bg-steel aria-selected:outline-3 aria-selected:outline-ink ${wide ? "flex min-h-32 flex-col justify-end p-2" : "grid grid-cols-[auto_1fr] items-center gap-x-3 p-1.5"}`}
          >
            {picture?.(option) ?? <span />}
            <span className="min-w-0">
              <span className="block font-semibold first-letter:uppercase">
                {option.name}
                {option.slug === value && <span className="narrow text-sm font-normal"> (now)</span>}
              </span>
              {option.says && <span className="narrow block text-sm text-soft">{option.says}</span>}
            </span>
          </div>
        ))}
      </div>
      {shown.length === 0 && otherwise && typed.trim() && (
        <button type="button" className="press self-start" onClick={() => otherwise.take(typed)}>
          {otherwise.says}: {typed}
        </button>
      )}
      {shown.length === 0 && !otherwise && (
        <p className="text-soft">Nothing is called “{typed}”. Try another word for it, or fewer letters.</p>
      )}
    </div>
  );
}
