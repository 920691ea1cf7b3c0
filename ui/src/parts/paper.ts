/** What is folded away and read on paper all the same. */
const FOLDED = "details[data-paper]:not([open])";

/** Fold open what belongs on paper while a page is printed; afterwards it is as it was. */
export function openOnPaper(): () => void {
  let opened: HTMLDetailsElement[] = [];
  const open = () => {
    opened = [...document.querySelectorAll<HTMLDetailsElement>(FOLDED)];
    for (const one of opened) one.open = true;
  };
  const close = () => {
    for (const one of opened) one.open = false;
    opened = [];
  };
  window.addEventListener("beforeprint", open);
  window.addEventListener("afterprint", close);
  return () => {
    window.removeEventListener("beforeprint", open);
    window.removeEventListener("afterprint", close);
  };
}
