import { useEffect, useRef } from "react";
import type { Advice, Finding, Remedy } from "../api/client";
import { useAdvice } from "../api/queries";
import { changeZone } from "../job/change";
import { stackEdit } from "../job/edits";
import { Question } from "../job/UsePanel";
import type { OpenJob } from "../job/useJob";
import { TextField } from "../parts/TextField";
import { Worded } from "../parts/Worded";

type Brings = Advice["brings"][number];
const NONE: Brings[] = [];

const GRADES = ["can hurt", "will fail", "risky", "good to know"] as const;
const MARK = { "can hurt": "!", "will fail": "▼", risky: "▽", "good to know": "·" };
const WORDS = {
  "can hurt": "can hurt somebody",
  "will fail": "will fail",
  risky: "risky",
  "good to know": "good to know",
};
/** Questions that are answered where they are asked. */
const ASKS = {
  "lead-untested": { of: "lead", label: "Lead in what was there before" },
  "lead-found": { of: "lead", label: "Lead in what was there before" },
  "heat-on-old-coat": { of: "lead", label: "Lead in what was there before" },
  "asbestos-untested": { of: "asbestos", label: "Asbestos in old texture or plaster" },
} as const;

/** Findings nobody has accepted yet, by grade. */
export function countOpen(findings: Finding[]): Record<Finding["grade"], number> {
  const counts = { "can hurt": 0, "will fail": 0, risky: 0, "good to know": 0 };
  for (const f of findings) if (f.accepted === null) counts[f.grade] += 1;
  return counts;
}

interface FindingsProps {
  open: OpenJob;
  zone: number;
  /** The layer above the boundary that was pressed on the core sample. */
  boundary: string | null;
}

/** What the checker found in the stack: the worst first, each with its reason and the remedies. */
export function Findings({ open, zone: index, boundary }: FindingsProps) {
  const findings = open.plan.zones[index]?.findings ?? [];
  const list = useRef<HTMLDivElement>(null);
  // What a remedy would bring is tried out beside the plan.
  const brings = useAdvice(open.job, open.job.zones[index]?.id ?? "").data?.brings ?? NONE;
  useEffect(() => {
    if (boundary === null) return;
    list.current
      ?.querySelector<HTMLElement>(`[data-above="${boundary}"]`)
      ?.scrollIntoView({ block: "nearest" });
  }, [boundary]);
  const order = (f: Finding) => (f.accepted === null ? GRADES.indexOf(f.grade) : GRADES.length);
  const sorted = [...findings].sort((a, b) => order(a) - order(b));
  if (!findings.length)
    return <p className="text-soft">Nothing to say against this stack, on this ground and for this use.</p>;
  return (
    <div ref={list} className="flex flex-col">
      {sorted.map((finding) => (
        <One
          key={finding.rule + finding.above + finding.says}
          open={open}
          zone={index}
          finding={finding}
          lit={boundary === finding.above}
          brings={brings.filter((b) => b.rule === finding.rule && b.above === finding.above)}
        />
      ))}
    </div>
  );
}

function One({
  open,
  zone: index,
  finding,
  lit,
  brings,
}: {
  open: OpenJob;
  zone: number;
  finding: Finding;
  lit: boolean;
  brings: Brings[];
}) {
  const accepted = finding.accepted !== null;
  const note = finding.grade === "good to know";
  const zone = open.job.zones[index];
  // One that brings something else is never the one that is offered first.
  const best = finding.remedies.find((r) => !brings.some((b) => b.remedy === r.says));
  const take = (remedy: Remedy) =>
    zone && open.decide(remedy.says.toLowerCase(), stackEdit(zone.id, remedy.changes));
  const accept = (reason: string | null) =>
    open.edit((job) =>
      changeZone(job, index, (z) => {
        const others = z.accepted.filter((a) => a.rule !== finding.rule || a.layer !== finding.above);
        const mine = reason === null ? [] : [{ rule: finding.rule, layer: finding.above, reason }];
        return { ...z, accepted: [...others, ...mine] };
      }),
    );
  if (!zone) return null;
  const words = accepted ? "accepted" : WORDS[finding.grade];
  const asks = finding.rule in ASKS ? ASKS[finding.rule as keyof typeof ASKS] : null;
  return (
    <article
      data-above={finding.above}
      aria-label={`${words}: ${finding.says}`}
      className={`border-t border-line py-2.5 ${lit ? "bg-steel" : ""}`}
    >
      <p className="flex items-baseline gap-2">
        <span
          className={`narrow shrink-0 px-1.5 text-sm font-bold ${accepted || note ? "border border-soft" : finding.grade === "risky" ? "border border-ink border-l-8" : "bg-dark text-enamel"}`}
        >
          <span aria-hidden>{MARK[finding.grade]} </span>
          {words}
        </span>
        <strong className={accepted || note ? "font-semibold" : ""}>{finding.says}</strong>
      </p>
      <p className="narrow mt-1 text-sm">
        <Worded>{finding.reason}</Worded>{" "}
        <span className="text-soft">
          {finding.sure === "certain" ? "Certain" : finding.sure === "likely" ? "Likely" : "A guess"};{" "}
          {finding.provenance}.
        </span>
      </p>
      {accepted ? (
        <div className="mt-1.5 flex flex-wrap items-end gap-2">
          <div className="grow">
            <TextField label="Accepted, because" value={finding.accepted ?? ""} max={200} onChange={accept} />
          </div>
          <button type="button" className="press text-sm" onClick={() => accept(null)}>
            No longer accept
          </button>
        </div>
      ) : (
        <div className="mt-2 flex flex-wrap gap-2">
          {finding.remedies.map((remedy) => {
            const brought = brings.find((b) => b.remedy === remedy.says);
            return (
              <div key={remedy.says} className={brought ? "w-full" : ""}>
                <button
                  type="button"
                  className={`press text-sm ${remedy === best && !note ? "press-strong" : ""}`}
                  onClick={() => void take(remedy)}
                >
                  {remedy.says}
                </button>
                {brought && (
                  <span className="narrow ml-2 text-sm">
                    but then, {WORDS[brought.grade]}: {brought.says}
                  </span>
                )}
              </div>
            );
          })}
          {asks && (
            <div className="w-full">
              <Question open={open} of={asks.of} label={asks.label} />
            </div>
          )}
          {!note && finding.grade !== "can hurt" && (
            <button type="button" className="press text-sm" onClick={() => accept("it is meant so")}>
              Accept this
            </button>
          )}
        </div>
      )}
    </article>
  );
}
