import { useEffect, useRef, useState } from "react";

const LONGEST_MS = 120_000;

interface Props {
  name: string;
  onKept: (name: string) => void;
}

/** A note that is spoken: recorded here where the browser can, else taken from a file. It stays in the workshop. */
export function Recorder({ name, onKept }: Props) {
  const [running, setRunning] = useState(false);
  const [fault, setFault] = useState("");
  const recorder = useRef<MediaRecorder | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const can = typeof MediaRecorder !== "undefined" && Boolean(navigator.mediaDevices?.getUserMedia);
  useEffect(() => () => recorder.current?.stop(), []);
  const send = async (sound: Blob) => {
    try {
      const reply = await fetch("/api/recordings", { method: "POST", body: sound });
      const kept = (await reply.json()) as { name?: string; detail?: string };
      if (!reply.ok || !kept.name) throw new Error(kept.detail ?? "The recording was refused.");
      setFault("");
      onKept(kept.name);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const begin = async () => {
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      const made = new MediaRecorder(stream);
      const parts: Blob[] = [];
      made.ondataavailable = (event) => parts.push(event.data);
      made.onstop = () => {
        for (const track of stream.getTracks()) track.stop();
        setRunning(false);
        void send(new Blob(parts, { type: made.mimeType }));
      };
      recorder.current = made;
      made.start();
      setRunning(true);
      window.setTimeout(() => made.state === "recording" && made.stop(), LONGEST_MS);
    } catch {
      setFault("The microphone may not be used here: choose a file instead.");
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      {can && (
        <button
          type="button"
          className="press min-h-[56px]"
          aria-pressed={running}
          onClick={() => (running ? recorder.current?.stop() : void begin())}
        >
          {running ? "Stop and keep" : "Speak a note"}
        </button>
      )}
      <button type="button" className="press min-h-[56px]" onClick={() => file.current?.click()}>
        Recorded note
      </button>
      <input
        ref={file}
        type="file"
        accept="audio/*"
        className="sr-only"
        aria-label="A recorded note, as a file"
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          if (chosen) void send(chosen);
        }}
      />
      {name && (
        // biome-ignore lint/a11y/useMediaCaption: it is the painter’s own voice
        <audio controls src={`/api/recordings/${name}`} className="h-11 w-full" />
      )}
      {fault && (
        <p role="alert" className="text-sm font-semibold">
          {fault}
        </p>
      )}
    </div>
  );
}
