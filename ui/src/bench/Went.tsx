import { useRef, useState } from "react";
import type { Act, BenchOp } from "../api/client";
import { Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { percent } from "../parts/say";
import { Recorder } from "./Recorder";

type Went = Required<Extract<Act, { act: "went" }>>;

const VERDICTS = ["as wanted", "good enough", "not again"] as const;

/** How the last coat went: how it came out, how far it went, what to remember; said at once or never. */
export function WentPanel({ op, onAct }: { op: BenchOp; onAct: (says: string, act: Act) => void }) {
  const [went, setWent] = useState<Went>(
    (op.went as Went | null) ?? {
      act: "went",
      share: 1,
      verdict: "",
      text: "",
      photographs: [],
      recording: "",
    },
  );
  const [open, setOpen] = useState(false);
  const [fault, setFault] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const say = (more: Partial<Went>) => {
    const next = { ...went, ...more };
    setWent(next);
    onAct(`How it went: ${op.operation.says}`, next);
  };
  const picture = async (chosen: File | undefined) => {
    if (!chosen) return;
    setFault("");
    try {
      const reply = await fetch("/api/photographs", { method: "POST", body: chosen });
      const kept = (await reply.json()) as { name?: string; detail?: string };
      if (!reply.ok || !kept.name) throw new Error(kept.detail ?? "The photograph was refused.");
      say({ photographs: [...went.photographs, kept.name].slice(-12) });
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  return (
    <section aria-labelledby="went" className="border-t-2 border-ink pt-2">
      <h2 id="went" className="wide text-lg font-bold">
        How did it come out?
      </h2>
      <p className="narrow text-sm">{op.operation.says}</p>
      <div className="mt-1 flex flex-wrap pl-0.5 [&>button]:-mt-0.5 [&>button]:-ml-0.5">
        {VERDICTS.map((verdict) => (
          <button
            key={verdict}
            type="button"
            className="press min-h-[56px]"
            aria-pressed={went.verdict === verdict}
            onClick={() => say({ verdict: went.verdict === verdict ? "" : verdict })}
          >
            {verdict}
          </button>
        ))}
        <button
          type="button"
          className="press min-h-[56px]"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          More
        </button>
      </div>
      {open && (
        <div className="mt-2 flex flex-col gap-3">
          <Stepper
            label="Of the surface"
            value={went.share}
            min={0}
            max={2}
            step={0.05}
            shown={percent(went.share)}
            onChange={(share) => say({ share: Math.round(share * 100) / 100 })}
          />
          <label className={LABEL}>
            To remember
            <textarea
              className="tape mt-0.5 block min-h-20 w-full"
              maxLength={2000}
              value={went.text}
              onChange={(e) => setWent({ ...went, text: e.target.value })}
              onBlur={() => say({})}
            />
          </label>
          <div className="flex flex-wrap items-center gap-2">
            <button type="button" className="press min-h-[56px]" onClick={() => file.current?.click()}>
              Photograph
            </button>
            <input
              ref={file}
              type="file"
              accept="image/jpeg,image/png,image/webp"
              className="sr-only"
              aria-label="A photograph of it"
              onChange={(e) => void picture(e.target.files?.[0])}
            />
            {went.photographs.map((name) => (
              <img
                key={name}
                src={`/api/photographs/${name}`}
                alt="As it came out"
                className="h-14 border border-ink"
              />
            ))}
          </div>
          <Recorder name={went.recording} onKept={(recording) => say({ recording })} />
          {fault && (
            <p role="alert" className="text-sm font-semibold">
              {fault}
            </p>
          )}
        </div>
      )}
    </section>
  );
}
