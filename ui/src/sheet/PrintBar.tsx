import { useState } from "react";
import { answer, api } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { useAway } from "../keep/away";
import { download } from "../parts/download";
import { Choice } from "../parts/fields";

const PAPERS = [
  { slug: "a4", name: "A4" },
  { slug: "letter", name: "US Letter" },
];
const PRINTS = [
  { what: "cards", name: "Mixing cards" },
  { what: "labels", name: "Jar labels" },
  { what: "steps", name: "Bench sheet" },
] as const;

/** Cards, labels and steps as PDF. Printing cards or labels freezes the batches, each under a code of its own. */
export function PrintBar({
  open,
  withJobs = [],
  stepDown = false,
  only,
}: {
  open: OpenJob;
  withJobs?: string[];
  stepDown?: boolean;
  /** One of the prints, where that is all that is asked for. */
  only?: (typeof PRINTS)[number]["what"];
}) {
  const [paper, setPaper] = useState("a4");
  const [says, setSays] = useState("");
  const away = useAway() !== null;

  async function print(what: (typeof PRINTS)[number]["what"], name: string) {
    setSays("Writing it…");
    try {
      const body = { what, paper: paper as "a4" | "letter", with_jobs: withJobs, step_down: stepDown };
      const params = { path: { job_id: open.id } };
      const pdf = await answer(api.POST("/api/jobs/{job_id}/print", { params, body, parseAs: "blob" }));
      download(pdf as Blob, `${open.job.name} ${name.toLowerCase()}.pdf`);
      setSays(what === "steps" ? "" : "The batches are kept as printed: scan or type a code to open one.");
    } catch (error) {
      setSays((error as Error).message);
    }
  }

  return (
    <div className={only ? "" : "border-t border-line pt-2"}>
      <div className="grid grid-cols-[6.5rem_1fr] items-end gap-2">
        <Choice label="Paper" value={paper} options={PAPERS} onChange={setPaper} />
        <div className="flex flex-wrap">
          {PRINTS.filter((p) => !only || p.what === only).map((p, i) => (
            <button
              key={p.what}
              type="button"
              className={`press grow px-2 ${i ? "-ml-0.5" : ""}`}
              disabled={open.saveState !== "saved" || open.stale || away}
              onClick={() => void print(p.what, p.name)}
            >
              {p.name}
            </button>
          ))}
        </div>
      </div>
      {says && (
        <p role="status" className="narrow mt-1 text-sm">
          {says}
        </p>
      )}
    </div>
  );
}
