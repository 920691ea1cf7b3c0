import { type FormEvent, useState } from "react";
import { Alert } from "../parts/notices";
import { when } from "../parts/say";
import { TextField } from "../parts/TextField";
import { enter, letGo, usualName } from "./entering";

interface EnterViewProps {
  /** Whether this device was turned out. */
  out: boolean;
  /** Since when its time is over; empty where that is not why it is asked. */
  lapsed: string;
  /** How much was entered here and never sent. */
  waits: number;
  said: string;
}

/** The way in from another device: the code that stands where Lumso was started, and what the device is called. */
export function EnterView({ out, lapsed, waits, said }: EnterViewProps) {
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
      {lapsed && (
        <p className="mt-3 border-l-4 border-ink pl-2">This device was let in until {when(lapsed)}.</p>
      )}
      <Sealed count={waits} />
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

/** What was entered here and never sent: it waits, unseen, until the device is let in again. */
function Sealed({ count }: { count: number }) {
  const [left, setLeft] = useState(count);
  const [sure, setSure] = useState(false);
  if (!count) return null;
  if (!left)
    return (
      <p role="status" className="mt-3 border-l-4 border-ink pl-2">
        It is let go.
      </p>
    );
  const things = left === 1 ? "One thing that was" : `${left} things that were`;
  return (
    <div className="mt-3 border-l-4 border-ink pl-2">
      <p>
        {things} entered here and never sent {left === 1 ? "waits" : "wait"}, sealed, until this device is let
        in again.
      </p>
      <button
        type="button"
        className="press mt-2"
        onClick={() => {
          if (!sure) return setSure(true);
          void letGo().then(() => setLeft(0));
        }}
      >
        {sure ? "Yes, let go of it for good" : "Let go of it"}
      </button>
    </div>
  );
}
