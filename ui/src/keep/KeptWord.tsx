import { useKept } from "./hooks";

const WORDS = {
  saved: "Saved",
  "kept here": "Kept here",
  "not kept": "Not kept: this browser keeps nothing",
  refused: "Refused",
};

/** What became of the last edit of a document, in words. `kept` says whether all on the screen is in that edit. */
export function KeptWord({ doc, kept }: { doc: string; kept: boolean }) {
  const { state, says } = useKept(doc);
  return (
    <p role="status" className="narrow text-sm text-soft">
      {state === "saved" && !kept ? "Not saved yet" : WORDS[state]}
      {says && `: ${says}`}
    </p>
  );
}
