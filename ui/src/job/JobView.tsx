import { Dialog } from "radix-ui";
import { useState } from "react";
import { useParams } from "react-router";
import { useCatalogue } from "../api/queries";
import { Failure } from "../parts/Failure";
import { say } from "../parts/say";
import { TextField } from "../parts/TextField";
import { MixColumn } from "./MixColumn";
import { PieceColumn } from "./PieceColumn";
import { PotColumn } from "./PotColumn";
import { type OpenJob, useJob } from "./useJob";

/** One job: the piece, what goes on it, and the pot that takes. */
export function JobView() {
  const { id } = useParams();
  const { open, failed } = useJob(id ?? "");
  const catalogue = useCatalogue();
  const [picked, setZone] = useState(0);
  if (failed) return <Failure error={failed} />;
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!open || !catalogue.data) return <p className="p-6 text-soft">Opening the job…</p>;
  const zone = Math.min(picked, open.job.zones.length - 1);
  return (
    <>
      <JobBar open={open} />
      <div className="grid min-h-[calc(100dvh-7rem)] lg:grid-cols-[minmax(18rem,23rem)_minmax(20rem,25rem)_minmax(0,1fr)]">
        <PieceColumn open={open} catalogue={catalogue.data} zone={zone} onZone={setZone} />
        <MixColumn open={open} catalogue={catalogue.data} zone={zone} />
        <PotColumn open={open} catalogue={catalogue.data} zone={zone} />
      </div>
      <PotInReach open={open} zone={zone} />
      <Elsewhere open={open} />
    </>
  );
}

/** On a narrow screen the pot is below the fold: its amounts stay in reach at the foot. */
function PotInReach({ open, zone }: { open: OpenJob; zone: number }) {
  const mix = open.plan.zones[zone]?.layers[0]?.mixes[0];
  if (!mix) return null;
  return (
    <a
      href="#pot"
      className="sticky bottom-0 z-[5] flex min-h-[72px] flex-wrap items-center gap-x-4 border-t-2 border-ink bg-dark px-4 py-2 text-enamel lg:hidden"
    >
      <span className="numeral text-2xl">
        {say(mix.volume.value)} <span className="text-base">ml</span>
      </span>
      {mix.parts.map((part) => (
        <span key={part.component} className="narrow text-sm">
          {part.name} <span className="numeral text-base">{say(part.poured.value)}</span> ml
        </span>
      ))}
    </a>
  );
}

const SAVE_WORDS = {
  saved: "Saved",
  saving: "Saving…",
  waiting: "Not saved yet",
  "changed elsewhere": "Changed elsewhere",
  refused: "Not saved",
};

function JobBar({ open }: { open: OpenJob }) {
  return (
    <div className="flex min-h-14 flex-wrap items-center gap-x-3 gap-y-1 border-b-2 border-ink bg-enamel px-4 py-1.5">
      <h1>
        <span className="sr-only">{open.job.name}</span>
      </h1>
      <div className="max-w-md grow basis-60">
        <TextField
          label="Name of the job"
          value={open.job.name}
          required
          strong
          bare
          onChange={(name) => open.edit((job) => ({ ...job, name }))}
        />
      </div>
      <p role="status" className="narrow ml-auto text-sm text-soft">
        {SAVE_WORDS[open.saveState]}
      </p>
      <div className="flex">
        <button type="button" className="press" onClick={open.undo} disabled={!open.canUndo}>
          Undo
        </button>
        <button type="button" className="press border-l-0" onClick={open.redo} disabled={!open.canRedo}>
          Redo
        </button>
      </div>
      {open.says && (
        <p role="alert" className="narrow w-full border-l-4 border-ink pl-2 text-sm font-semibold">
          {open.says}
        </p>
      )}
    </div>
  );
}

/** The job was changed elsewhere: neither version is lost, and the painter says which one goes on. */
function Elsewhere({ open }: { open: OpenJob }) {
  return (
    <Dialog.Root open={open.saveState === "changed elsewhere"}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-10 bg-ink/60" />
        <Dialog.Content className="fixed inset-x-4 top-24 z-20 mx-auto max-w-lg border-2 border-ink bg-enamel p-5">
          <Dialog.Title className="text-lg font-bold">This job was changed elsewhere</Dialog.Title>
          <Dialog.Description className="mt-2">
            Another window or device saved it while you worked. Keep yours, and theirs stays one undo away; or
            take theirs, and yours is let go.
          </Dialog.Description>
          <div className="mt-4 flex flex-wrap gap-3">
            <button type="button" className="press press-strong" onClick={open.keepMine}>
              Keep mine
            </button>
            <button type="button" className="press" onClick={open.takeTheirs}>
              Take theirs
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
