import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { shownNow } from "../parts/settings";
import { HELD, SHORTCUTS, typing } from "./keys";

/** Single keys go to places; `?` lists them. They can be switched off, and never fire in fields. */
export function Shortcuts() {
  const [open, setOpen] = useState(false);
  const navigate = useNavigate();
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      if (!shownNow().keys || e.ctrlKey || e.metaKey || e.altKey || e.repeat || typing(e.target)) return;
      if (document.querySelector('[role="dialog"]')) return;
      const one = SHORTCUTS.find((s) => s.key === e.key);
      if (!one) return;
      e.preventDefault();
      if (one.to) navigate(one.to);
      else setOpen(true);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [navigate]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-10 bg-ink/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-4 top-16 z-20 mx-auto max-h-[80dvh] max-w-md overflow-auto bg-enamel p-5"
        >
          <div className="flex items-start justify-between gap-3">
            <Dialog.Title className="text-lg font-bold">Keys</Dialog.Title>
            <Dialog.Close className="press">Close</Dialog.Close>
          </div>
          <KeyList />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

export function KeyList() {
  return (
    <dl className="mt-2 grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1">
      {[...SHORTCUTS, ...HELD].map((s) => (
        <div key={s.key} className="contents">
          <dt>
            <kbd className="border border-soft bg-enamel px-2 font-semibold">{s.key}</kbd>
          </dt>
          <dd>{s.does}</dd>
        </div>
      ))}
    </dl>
  );
}
