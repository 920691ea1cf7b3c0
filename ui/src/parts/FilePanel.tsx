import { useRef, useState } from "react";
import { useImport } from "../api/changes";
import { Refused } from "../api/client";

interface FilePanelProps {
  what: "recipes" | "kits" | "shelf";
  says: string;
}

/** Files out and in. A file that clashes with what is here asks; one that is here already changes nothing. */
export function FilePanel({ what, says }: FilePanelProps) {
  const take = useImport();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const reply = take.data;
  const faults = take.error instanceof Refused ? (take.error.problem.faults ?? []) : [];
  const clashes = reply?.arrivals.filter((a) => a.state === "clash") ?? [];

  async function chosen(list: FileList | null) {
    const first = list?.[0];
    if (!first) return;
    const read = { name: first.name, text: await first.text() };
    setFile(read);
    take.mutate({ ...read, on_clash: "ask" });
    if (input.current) input.current.value = "";
  }

  return (
    <section aria-label="Files" className="mt-10 border-t-2 border-ink pt-3">
      <h2 className="text-base font-bold">Files</h2>
      <p className="narrow text-sm text-soft">{says}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <a className="press inline-flex items-center" href={`/api/export/${what}.json`} download>
          Save as a file
        </a>
        {what === "shelf" && (
          <a className="press inline-flex items-center" href="/api/export/shelf.csv" download>
            Save as a spreadsheet
          </a>
        )}
        <button type="button" className="press" onClick={() => input.current?.click()}>
          Open a file
        </button>
        <input
          ref={input}
          type="file"
          accept=".json,.csv"
          className="hidden"
          aria-label="File to take up"
          onChange={(e) => void chosen(e.target.files)}
        />
      </div>
      <div role="status" className="mt-2">
        {take.isPending && <p>Reading {file?.name}…</p>}
        {reply && !reply.asks && (
          <p>
            {reply.taken === 0
              ? `${file?.name}: nothing to change, it is all here already.`
              : `${reply.taken} taken up from ${file?.name}.`}
          </p>
        )}
        {reply?.asks && file && (
          <div className="border-2 border-ink bg-enamel p-3">
            <p className="font-semibold">
              Here already, but different: {clashes.map((c) => c.name).join(", ")}.
            </p>
            <div className="mt-2 flex flex-wrap gap-2">
              <button
                type="button"
                className="press"
                onClick={() => take.mutate({ ...file, on_clash: "keep mine" })}
              >
                Keep mine, take up the rest
              </button>
              <button
                type="button"
                className="press"
                onClick={() => take.mutate({ ...file, on_clash: "take theirs" })}
              >
                Take the file’s
              </button>
            </div>
          </div>
        )}
      </div>
      {take.error && (
        <div role="alert" className="mt-2 border-2 border-ink bg-enamel p-3">
          <p className="font-semibold">{file?.name} was not taken up; nothing changed.</p>
          <ul className="narrow text-sm">
            {faults.map((f) => (
              <li key={f.at + f.says}>
                {f.at || "The whole"}: {f.says} Allowed: {f.allowed}.
              </li>
            ))}
            {faults.length === 0 && <li>{take.error.message}</li>}
          </ul>
        </div>
      )}
    </section>
  );
}
