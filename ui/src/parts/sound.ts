/** Whether all that is entered around a key can be used: where something cannot, it has the focus. */
export function sound(key: Element): boolean {
  const wrong = key.closest("[data-asked], form")?.querySelector<HTMLElement>('[aria-invalid="true"]');
  wrong?.focus();
  return !wrong;
}
