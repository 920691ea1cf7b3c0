import { type PointerEvent, useId, useState } from "react";
import { type Box, keepPhotograph, type SeenColour } from "../api/boards";
import { answer, api } from "../api/client";
import { Stepper } from "../parts/fields";
import { Alert } from "../parts/notices";
import { percent } from "../parts/say";

interface PhotoColourProps {
  /** The photograph that is kept, "" for none. */
  name: string;
  /** Whether something else shows it too: then it is taken off, not deleted. */
  shared?: boolean;
  /** How close a colour of a photograph is at best, ΔE. */
  within: number;
  onPhoto: (name: string) => void;
  onColour: (seen: SeenColour) => void;
}

type Part = "card" | "spot";
const SIDE = 0.14;

/** A photograph of a strip with a white card beside it, and the colour in it: card and spot are marked on the picture. */
export function PhotoColour({ name, shared = false, within, onPhoto, onColour }: PhotoColourProps) {
  const id = useId();
  const [part, setPart] = useState<Part>("card");
  const [boxes, setBoxes] = useState<Record<Part, Box>>({
    card: { x: 0.1, y: 0.1, w: SIDE, h: SIDE },
    spot: { x: 0.5, y: 0.5, w: SIDE, h: SIDE },
  });
  const [says, setSays] = useState("");
  const [wrong, setWrong] = useState("");

  async function attempt(work: () => Promise<void>) {
    setWrong("");
    setSays("");
    try {
      await work();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  const send = (file: File) =>
    attempt(async () => {
      setSays("Looking at it…");
      onPhoto((await keepPhotograph(file)).name);
      setSays("Mark the white card, then the colour.");
    });
  const read = () =>
    attempt(async () => {
      const params = { path: { name } };
      onColour(await answer(api.POST("/api/photographs/{name}/colour", { params, body: boxes })));
    });
  const drop = () =>
    attempt(async () => {
      if (shared) return onPhoto("");
      const gone = await answer(api.DELETE("/api/photographs/{name}", { params: { path: { name } } }));
      onPhoto("");
      setSays(gone.says);
    });

  function mark(event: PointerEvent<HTMLDivElement>) {
    const whole = event.currentTarget.getBoundingClientRect();
    const at = (place: number, start: number, size: number) =>
      Math.min(1 - SIDE, Math.max(0, (place - start) / size - SIDE / 2));
    const box = {
      ...boxes[part],
      x: at(event.clientX, whole.left, whole.width),
      y: at(event.clientY, whole.top, whole.height),
    };
    setBoxes({ ...boxes, [part]: box });
    if (part === "card") setPart("spot");
  }
  const move = (key: "x" | "y") => (value: number) =>
    setBoxes({ ...boxes, [part]: { ...boxes[part], [key]: value } });

  return (
    <div className="flex flex-col gap-2 border-2 border-ink p-3">
      <div>
        <label htmlFor={id} className="block text-sm font-semibold">
          {name ? "Another photograph" : "A photograph, with a white card beside the strip"}
        </label>
        <input
          id={id}
          type="file"
          accept="image/jpeg,image/png,image/webp,image/tiff"
          className="min-h-11 w-full text-sm"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void send(file);
          }}
        />
      </div>
      {name && (
        <>
          <div
            className="relative cursor-crosshair touch-manipulation border border-ink"
            onPointerDown={mark}
          >
            <img src={`/api/photographs/${name}`} alt="The strip, photographed" className="block w-full" />
            {(["card", "spot"] as const).map((p) => (
              <span
                key={p}
                className={`pointer-events-none absolute border-ink text-xs font-bold ${p === part ? "border-4" : "border-2"}`}
                style={{
                  left: percentOf(boxes[p].x),
                  top: percentOf(boxes[p].y),
                  width: percentOf(boxes[p].w),
                  height: percentOf(boxes[p].h),
                  outline: "2px solid var(--color-enamel)",
                }}
              >
                <span className="bg-enamel px-0.5">{p === "card" ? "card" : "colour"}</span>
              </span>
            ))}
          </div>
          <fieldset className="flex">
            <legend className="sr-only">What is marked</legend>
            {(["card", "spot"] as const).map((p, i) => (
              <button
                key={p}
                type="button"
                aria-pressed={p === part}
                className={`press grow text-sm ${i ? "-ml-0.5" : ""} ${p === part ? "press-strong" : ""}`}
                onClick={() => setPart(p)}
              >
                {p === "card" ? "mark the white card" : "mark the colour"}
              </button>
            ))}
          </fieldset>
          <div className="grid grid-cols-2 gap-3">
            <Stepper
              label="From the left"
              value={boxes[part].x}
              min={0}
              max={1 - SIDE}
              step={0.02}
              shown={percent(boxes[part].x)}
              onChange={move("x")}
            />
            <Stepper
              label="From the top"
              value={boxes[part].y}
              min={0}
              max={1 - SIDE}
              step={0.02}
              shown={percent(boxes[part].y)}
              onChange={move("y")}
            />
          </div>
          <div className="flex">
            <button type="button" className="press press-strong grow" onClick={() => void read()}>
              Take the colour
            </button>
            <button type="button" className="press -ml-0.5 text-sm" onClick={() => void drop()}>
              {shared ? "Take it off this strip" : "Delete the photograph"}
            </button>
          </div>
          <p className="narrow text-sm text-soft">
            Never better than ΔE {within}: a camera is no measuring device.
          </p>
        </>
      )}
      {wrong && <Alert>{wrong}</Alert>}
      {says && (
        <p role="status" className="narrow text-sm">
          {says}
        </p>
      )}
    </div>
  );
}

const percentOf = (share: number) => `${share * 100}%`;
