import { useId, useState } from "react";
import { keepPhotograph } from "../api/boards";
import { Alert, LABEL } from "../parts/notices";
import { useTyped } from "../parts/useTyped";
import type { OpenJob } from "./useJob";

/** What the painter wants to remember of a job: words and photographs. */
export function NotesPanel({ open }: { open: OpenJob }) {
  const id = useId();
  const { note, photographs } = open.job;
  const [text, setText] = useTyped(note);
  const [failed, setFailed] = useState("");
  const [busy, setBusy] = useState(false);

  async function take(file: File | undefined) {
    if (!file) return;
    setBusy(true);
    setFailed("");
    try {
      const kept = await keepPhotograph(file);
      open.edit((j) => ({ ...j, photographs: [...j.photographs.filter((p) => p !== kept.name), kept.name] }));
    } catch (error) {
      setFailed((error as Error).message);
    }
    setBusy(false);
  }

  return (
    <div className="flex flex-col gap-3">
      <div>
        <label htmlFor={id} className={LABEL}>
          Notes
        </label>
        <textarea
          id={id}
          rows={6}
          maxLength={4000}
          className="tape w-full"
          value={text}
          onChange={(e) => {
            const { value } = e.target;
            setText(value);
            open.edit((j) => ({ ...j, note: value }));
          }}
        />
      </div>
      <ul className="grid grid-cols-2 gap-2">
        {photographs.map((name, i) => (
          <li key={name}>
            <img
              src={`/api/photographs/${name}`}
              alt={`The piece, photograph ${i + 1}`}
              loading="lazy"
              className="w-full"
            />
            <button
              type="button"
              className="min-h-11 underline"
              onClick={() =>
                open.edit((j) => ({ ...j, photographs: j.photographs.filter((p) => p !== name) }))
              }
            >
              Take off photograph {i + 1}
            </button>
          </li>
        ))}
      </ul>
      <label
        className={`press inline-flex cursor-pointer items-center justify-center ${busy ? "opacity-60" : ""}`}
      >
        {busy ? "Keeping the photograph…" : "Add a photograph"}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={busy}
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </label>
      {failed && <Alert quiet>{failed}</Alert>}
    </div>
  );
}
