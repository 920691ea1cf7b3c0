import { useEffect, useRef, useState } from "react";

/** Text that is being typed; it follows what it is of when that changes by itself, as by undo. */
export function useTyped(value: string): [string, (text: string) => void] {
  const [text, setText] = useState(value);
  const given = useRef(value);
  useEffect(() => {
    if (value !== given.current) {
      given.current = value;
      setText(value);
    }
  }, [value]);
  return [
    text,
    (next) => {
      given.current = next;
      setText(next);
    },
  ];
}
