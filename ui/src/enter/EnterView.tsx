import { type FormEvent, useState } from "react";
import { Alert } from "../parts/notices";
import { TextField } from "../parts/TextField";
import { enter, usualName } from "./entering";

/** The way in from another device: the code that stands where Lumso was started, and what the device is called. */
export function EnterView({ out, said }: { out: boolean; said: string }) {
  const [code, setCode] = useState("");
  const [name, setName] = useState(usualName());
  const [says, setSays] = useState(said);
  const [busy, setBusy] = useState(false);

  async function give(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    try {
      await enter(code, name.trim() || usualName());
      location.reload();
    } catch (error) {
      setSays((error as Error).message);
      setBusy(false);
    }
  }

  return (
    <main id="main" className="mx-auto max-w-xl px-4 py-10">
      <p className="wide text-lg font-bold">Lumso</p>
      <h1 className="wide mt-4 text-2xl leading-tight font-bold">This workshop asks for its code</h1>
      {out && (
        <p className="mt-3 border-l-4 border-ink pl-2">
          This device was turned out of the workshop, and what it kept is gone from it.
        </p>
      )}
      <p className="mt-3 text-lg">
        Four short words. They stand where Lumso was started, with a picture to scan instead.
      </p>
      <form onSubmit={(event) => void give(event)} className="mt-5 grid gap-4">
        <TextField label="The code" value={code} strong onChange={setCode} />
        <TextField label="What this device is called" value={name} max={60} onChange={setName} />
        {says && <Alert>{says}</Alert>}
        <button
          type="submit"
          className="press press-strong min-h-[72px] text-lg"
          disabled={busy || !code.trim()}
        >
          Enter
        </button>
      </form>
    </main>
  );
}
