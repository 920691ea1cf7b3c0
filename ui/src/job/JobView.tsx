import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, NavLink, useParams } from "react-router";
import { useCatalogue } from "../api/workshop";
import { IntoDays } from "../days/IntoDays";
import { Failure } from "../parts/Failure";
import { Later, LaterView } from "../parts/later";
import { Loading } from "../parts/notices";
import { ml, say } from "../parts/say";
import { TextField } from "../parts/TextField";
import { CannotOpen } from "./CannotOpen";
import { Pending } from "./Pending";
import { PieceColumn } from "./PieceColumn";
import { type OpenJob, useJob } from "./useJob";

const FinishSide = new LaterView(() => import("../finish/FinishSide").then((m) => m.FinishSide));
const BoardSide = new LaterView(() => import("../board/BoardSide").then((m) => m.BoardSide));
const LookSide = new LaterView(() => import("../look/LookSide").then((m) => m.LookSide));
const MixSide = new LaterView(() => import("./MixSide").then((m) => m.MixSide));
const SheetSide = new LaterView(() => import("../sheet/SheetSide").then((m) => m.SheetSide));
const StepsSide = new LaterView(() => import("../steps/StepsSide").then((m) => m.StepsSide));

const SIDES = [
  { slug: "finish", name: "Finish" },
  { slug: "look", name: "Look" },
  { slug: "mix", name: "Mix" },
  { slug: "sheet", name: "Sheet" },
  { slug: "steps", name: "Steps" },
] as const;

const BOARD = [{ slug: "board", name: "Board" }] as const;

/** One job, seen from several sides, always with the piece in reach: its finish, its mixes, its steps. */
export function JobView() {
  const { id, side } = useParams();
  const { open, failed, again } = useJob(id ?? "");
  const catalogue = useCatalogue();
  const [picked, setPicked] = useState({ zone: 0, layer: 0 });
  const looked = open?.job.zones[Math.min(picked.zone, open.job.zones.length - 1)]?.id;
  const lookAt = open?.session.lookAt;
  useEffect(() => {
    if (looked) lookAt?.(looked);
  }, [looked, lookAt]);
  useEffect(() => {
    for (const side of [FinishSide, LookSide, MixSide, SheetSide, StepsSide]) side.ahead();
  }, []);
  if (failed) return <CannotOpen id={id ?? ""} error={failed} onRetry={again} />;
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!open || !catalogue.data) return <Loading>Opening the job…</Loading>;
  const zone = Math.min(picked.zone, open.job.zones.length - 1);
  const layer = Math.max(0, Math.min(picked.layer, (open.job.zones[zone]?.layers.length ?? 1) - 1));
  // A pot with no piece has nothing to lay layers on: it is a mix and nothing else.
  const board = open.job.board;
  const now = open.job.piece ? (side ?? (board ? "board" : "finish")) : "mix";
  const at = { open, catalogue: catalogue.data, zone, layer };
  const old = open.stale && (open.saveState === "waiting" || open.waiting.length > 0);
  const setLayer = (index: number) => setPicked({ zone, layer: index });
  return (
    <>
      <JobBar open={open} sides={open.job.piece ? now : ""} />
      <div
        data-stale={old || undefined}
        className="grid min-h-[calc(100dvh-7rem)] grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(18rem,21rem)_minmax(20rem,27rem)_minmax(0,1fr)]"
      >
        <PieceColumn {...at} onZone={(index) => setPicked({ zone: index, layer: 0 })} />
        {now === "finish" && <Later view={FinishSide} given={{ ...at, onLayer: setLayer }} />}
        {now === "board" && board && (
          <Later
            view={BoardSide}
            given={{ ...at, board, onZone: (index) => setPicked({ zone: index, layer: 0 }) }}
          />
        )}
        {now === "look" && <Later view={LookSide} given={{ ...at, onLayer: setLayer }} />}
        {now === "mix" && <Later view={MixSide} given={{ ...at, onLayer: setLayer }} />}
        {now === "sheet" && <Later view={SheetSide} given={at} />}
        {now === "steps" && <Later view={StepsSide} given={{ open, zone }} />}
      </div>
      {now === "mix" && <PotInReach open={open} zone={zone} layer={layer} old={old} />}
      <Elsewhere open={open} />
    </>
  );
}

/** On a narrow screen the pot is below the fold: its amounts stay in reach at the foot. */
function PotInReach(props: { open: OpenJob; zone: number; layer: number; old: boolean }) {
  const { open, zone, layer, old } = props;
  const mix = open.plan.zones[zone]?.layers[layer]?.pots[0]?.mix;
  if (!mix) return null;
  return (
    <a
      href="#pot"
      data-stale={old || undefined}
      className="sticky bottom-0 z-[5] flex min-h-[72px] flex-wrap items-center gap-x-4 border-t-2 border-ink bg-dark px-4 py-2 text-enamel lg:hidden"
    >
      <span className="numeral text-2xl">
        {say(mix.volume.value)} <span className="text-base">ml</span>
      </span>
      {mix.parts.map((part) => (
        <span key={part.component} className="narrow text-sm">
          {part.name} <span className="numeral text-base">{ml(part.poured.value)}</span>
        </span>
      ))}
    </a>
  );
}

/** What became of the last edit, in words. */
function saveWords({ saveState, kept }: OpenJob): string {
  if (saveState === "saved") return "Saved";
  if (saveState === "changed elsewhere") return "Changed elsewhere";
  if (saveState === "refused") return "Refused";
  return kept ? "Kept here" : "Not kept: this browser keeps nothing";
}

/** The job’s name, its sides, and undo. `sides` is the one shown, "" for a pot that has only one. */
function JobBar({ open, sides }: { open: OpenJob; sides: string }) {
  return (
    <div className="flex min-h-14 flex-wrap items-center gap-x-3 gap-y-1 border-b-2 border-ink bg-enamel px-4 py-1.5">
      <h1>
        <span className="sr-only">{open.job.name}</span>
      </h1>
      <div className="max-w-md grow basis-40">
        <TextField
          label="Name of the job"
          value={open.job.name}
          required
          strong
          bare
          onChange={(name) => open.edit((job) => ({ ...job, name }))}
        />
      </div>
      {sides && (
        <nav aria-label="Sides of the job" className="flex flex-wrap pl-0.5 [&>*]:-ml-0.5">
          {[...(open.job.board ? BOARD : []), ...SIDES].map((side) => (
            <NavLink
              key={side.slug}
              to={`/jobs/${open.id}/${side.slug}`}
              aria-current={sides === side.slug ? "page" : undefined}
              className={`press ${sides === side.slug ? "press-strong" : ""}`}
            >
              {side.name}
            </NavLink>
          ))}
        </nav>
      )}
      {sides && (
        <Link to={`/jobs/${open.id}/bench`} className="press press-strong inline-flex items-center">
          At the bench
        </Link>
      )}
      {sides && <IntoDays job={open.id} />}
      <p role="status" className="narrow ml-auto text-sm text-soft">
        {saveWords(open)}
      </p>
      <div className="flex">
        <button
          type="button"
          className="press"
          onClick={open.session.undo}
          disabled={open.undo === null}
          title={open.undo ? `Undo: ${open.undo}` : undefined}
          aria-describedby={open.gap ? "gap" : undefined}
        >
          Undo
        </button>
        <button
          type="button"
          className="press border-l-0"
          onClick={open.session.redo}
          disabled={open.redo === null}
          title={open.redo ? `Redo: ${open.redo}` : undefined}
        >
          Redo
        </button>
      </div>
      {open.gap > 0 && (
        <p id="gap" className="narrow w-full text-sm text-soft">
          Undo goes back to an older version: {open.gap === 1 ? "one" : open.gap} between{" "}
          {open.gap === 1 ? "was" : "were"} let go by age.
        </p>
      )}
      <Pending open={open} />
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
            <button type="button" className="press press-strong" onClick={open.session.keepMine}>
              Keep mine
            </button>
            <button type="button" className="press" onClick={open.session.takeTheirs}>
              Take theirs
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
