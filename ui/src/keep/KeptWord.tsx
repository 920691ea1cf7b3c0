import { useKept } from "./hooks";

const WORDS = {
  saved: "Saved",
  "kept here": "On this device only",
  "not kept": "Not kept: this browser keeps nothing",
  refused: "Refused",
};

/** What became of the last edit of a document, in words. `kept` says whether all on the screen is in that edit. */
export function KeptWord({ doc, kept, undo }: { doc: string; kept: boolean; undo?: (() => void) | null }) {
  const { state, says } = useKept(doc);
  return (
    <div className="flex items-center gap-4">
      <p role="status" className="narrow text-sm text-soft">
        {state === "saved" && !kept ? "Not saved yet" : WORDS[state]}
        {says && `: ${says}`}
      </p>
      {undo && (
        <button type="button" className="min-h-11 px-1 underline" onClick={undo}>
          Undo the last change
        </button>
      )}
    </div>
  );
}
