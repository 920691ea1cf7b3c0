import { Dialog } from "radix-ui";
import { useEffect, useRef } from "react";
import { Link, NavLink, useLocation, useParams } from "react-router";
import type { Catalogue, Job } from "../api/client";
import { useCatalogue, useSettings } from "../api/workshop";
import { IntoDays } from "../days/IntoDays";
import { Announce } from "../parts/Announce";
import { Failure } from "../parts/Failure";
import { Later, LaterView } from "../parts/later";
import { Loading } from "../parts/notices";
import { ml, say } from "../parts/say";
import { TextField } from "../parts/TextField";
import { sameSpot } from "../parts/useAddress";
import { usePlace } from "../parts/usePlace";
import { CannotOpen } from "./CannotOpen";
import { Pending } from "./Pending";
import { PieceAside } from "./PieceAside";
import { PieceSide } from "./PieceSide";
import { useFollow } from "./useFollow";
import { type OpenJob, useJob } from "./useJob";
import { type Spot, useSpot, useUndoKeys } from "./useSpot";

const FinishSide = new LaterView(() => import("../finish/FinishSide").then((m) => m.FinishSide));
const BoardSide = new LaterView(() => import("../board/BoardSide").then((m) => m.BoardSide));
const LookSide = new LaterView(() => import("../look/LookSide").then((m) => m.LookSide));
const MixSide = new LaterView(() => import("./MixSide").then((m) => m.MixSide));
const SheetSide = new LaterView(() => import("../sheet/SheetSide").then((m) => m.SheetSide));
const CostSide = new LaterView(() => import("../cost/CostSide").then((m) => m.CostSide));
const StepsSide = new LaterView(() => import("../steps/StepsSide").then((m) => m.StepsSide));

const SIDES = [
  { slug: "piece", name: "Piece" },
  { slug: "finish", name: "Finish" },
  { slug: "look", name: "Look" },
  { slug: "mix", name: "Mix" },
  { slug: "sheet", name: "Sheet" },
  { slug: "steps", name: "Steps" },
  { slug: "cost", name: "Cost" },
] as const;

const BOARD = [{ slug: "board", name: "Board" }] as const;

/** One job, seen from several sides, always with the piece in reach: its finish, its mixes, its steps. */
export function JobView() {
  const { id, side } = useParams();
  const { open, failed, again } = useJob(id ?? "");
  const place = open && sideOf(open.job, side);
  usePlace(placeName(open, place));
  const catalogue = useCatalogue();
  const spot = useSpot(open);
  useEffect(() => {
    for (const side of [FinishSide, LookSide, MixSide, SheetSide, StepsSide, CostSide]) side.ahead();
  }, []);
  const { undo, redo, replan } = open?.session ?? {};
  useFollow(id ?? "", open?.session);
  useChosen(replan);
  useUndoKeys(undo, redo);
  if (failed) return <CannotOpen id={id ?? ""} error={failed} onRetry={again} />;
  if (catalogue.error) return <Failure error={catalogue.error} onRetry={() => void catalogue.refetch()} />;
  if (!open || !catalogue.data) return <Loading>Opening the job…</Loading>;
  // A pot with no piece has nothing to lay layers on: it is a mix and nothing else.
  const board = open.job.board;
  const now = sideOf(open.job, side);
  const { zone, layer, setZone, setLayer } = spot;
  const at = { open, catalogue: catalogue.data, zone, layer };
  const old = open.stale && (open.saveState !== "saving" || open.waiting.length > 0);
  const narrow = now === "steps" || now === "piece";
  return (
    <>
      <JobBar open={open} sides={open.job.piece ? now : ""} />
      <Standing open={open} zone={zone} now={now} />
      <div
        data-stale={old || undefined}
        className={`min-h-[calc(100dvh-7rem)] ${now === "piece" ? "" : "lg:grid lg:grid-cols-[13.5rem_minmax(0,1fr)] xl:grid-cols-[16rem_minmax(0,1fr)]"}`}
      >
        {now !== "piece" && <PieceAside {...at} onZone={setZone} />}
        <div
          id="side"
          className={`grid min-w-0 grid-cols-[minmax(0,1fr)] ${now === "piece" ? "" : "border-ink max-lg:border-t-2 lg:border-l-2"} ${narrow ? "" : "md:grid-cols-[minmax(19rem,2fr)_minmax(0,3fr)]"}`}
        >
          <Side {...at} now={now} board={board} setZone={setZone} setLayer={setLayer} />
        </div>
      </div>
      <Announce>{mixed(open, zone, layer)}</Announce>
      {now === "mix" && <PotInReach open={open} zone={zone} layer={layer} old={old} />}
      <Elsewhere open={open} />
    </>
  );
}

const DANGERS = new Set(["can hurt", "will fail"]);

/** What will fail or can hurt somebody as it is planned, on every side of the job; where it is listed anyway, once. */
function Standing({ open, zone, now }: { open: OpenJob; zone: number; now: string }) {
  const { standing } = open.plan;
  const here = open.plan.zones[zone]?.findings.filter((f) => f.accepted === null && DANGERS.has(f.grade));
  const listed = now === "finish" && (here?.length ?? 0) >= standing.hurts + standing.fails;
  if (!standing.says || listed) return null;
  return (
    <p role="note" className="said narrow flex flex-wrap items-baseline gap-x-3 px-4">
      <span className="font-semibold">As it is planned: {standing.says}</span>
      <Link
        to={`/jobs/${open.id}/finish?zone=${standing.zone}&tab=findings`}
        className="inline-flex min-h-11 items-center underline print:hidden"
      >
        See to it
      </Link>
    </p>
  );
}

/** What the page is called: the job and its side; "" while it is opened. */
function placeName(open: OpenJob | null, place: string | null): string {
  if (!open) return "";
  return `${open.job.name} · ${[...BOARD, ...SIDES].find((s) => s.slug === place)?.name ?? ""}`;
}

/** What was chosen for the workshop, on whatever screen, counts here once it is saved. */
function useChosen(replan: (() => void) | undefined): void {
  const chosen = useSettings().data?.revision;
  const counted = useRef(chosen);
  useEffect(() => {
    if (chosen !== undefined && counted.current !== undefined && counted.current !== chosen) replan?.();
    counted.current = chosen;
  }, [chosen, replan]);
}

interface SideProps extends Spot {
  open: OpenJob;
  catalogue: Catalogue;
  now: string;
  board: Job["board"];
}

/** The side of the job that is shown. */
function Side({ open, catalogue, zone, layer, now, board, setZone, setLayer }: SideProps) {
  const at = { open, catalogue, zone, layer };
  switch (now) {
    case "piece":
      return <PieceSide {...at} onZone={setZone} />;
    case "finish":
      return <Later view={FinishSide} given={{ ...at, onLayer: setLayer }} />;
    case "board":
      return board && <Later view={BoardSide} given={{ ...at, board, onZone: setZone }} />;
    case "look":
      return <Later view={LookSide} given={{ ...at, onLayer: setLayer }} />;
    case "mix":
      return <Later view={MixSide} given={{ ...at, onLayer: setLayer }} />;
    case "sheet":
      return <Later view={SheetSide} given={at} />;
    case "cost":
      return <Later view={CostSide} given={{ open, zone }} />;
    case "steps":
      return <Later view={StepsSide} given={{ open, zone }} />;
    default:
      return null;
  }
}

/** The side that is shown: of a pot with no piece, which has nothing to lay layers on, its mix and nothing else. */
function sideOf(job: Job, asked: string | undefined): string {
  if (!job.piece) return "mix";
  return asked ?? (job.board ? "board" : "finish");
}

/** How much the pot of a layer is, in words. */
function mixed(open: OpenJob, zone: number, layer: number): string {
  const mix = open.plan.zones[zone]?.layers[layer]?.pots[0]?.mix;
  return mix ? `${ml(mix.volume.value)} to mix` : "";
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
      className="z-[5] flex min-h-[72px] flex-wrap items-center gap-x-4 border-t-2 border-ink bg-dark px-4 py-2 text-enamel md:hidden [@media(min-height:500px)]:sticky [@media(min-height:500px)]:bottom-0"
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
  return kept ? "On this device only" : "Not kept: this browser keeps nothing";
}

/** What is older than the edits above it is not begun: the bench waits until they are worked out and saved. */
function ToTheBench({ open }: { open: OpenJob }) {
  if (open.stale && open.saveState !== "saved")
    return (
      <button type="button" className="press" disabled title="When what you changed is worked out and saved">
        At the bench
      </button>
    );
  return (
    <span className="flex">
      <Link to={`/jobs/${open.id}/rehearse`} className="press inline-flex items-center">
        Rehearse
      </Link>
      <Link to={`/jobs/${open.id}/bench`} className="press press-strong inline-flex items-center border-l-0">
        At the bench
      </Link>
    </span>
  );
}

/** The job’s name, its sides, and undo. `sides` is the one shown, "" for a pot that has only one. */
function JobBar({ open, sides }: { open: OpenJob; sides: string }) {
  const { search } = useLocation();
  return (
    <div className="flex min-h-16 flex-wrap items-center gap-x-3 gap-y-1 border-b-2 border-ink bg-enamel px-4 py-1.5">
      <h1 className="max-w-md grow basis-40">
        <span className="sr-only">{open.job.name}</span>
        <TextField
          label="Name of the job"
          value={open.job.name}
          required
          strong
          bare
          onChange={(name) => open.edit((job) => ({ ...job, name }))}
        />
      </h1>
      {sides && (
        <nav aria-label="Sides of the job" className="flex flex-wrap max-sm:order-last max-sm:w-full">
          {[...(open.job.board ? BOARD : []), ...SIDES].map((side) => (
            <NavLink
              key={side.slug}
              to={`/jobs/${open.id}/${side.slug}${sameSpot(search)}`}
              aria-current={sides === side.slug ? "page" : undefined}
              className="side inline-flex items-center max-sm:grow max-sm:justify-center max-sm:px-1"
            >
              {side.name}
            </NavLink>
          ))}
        </nav>
      )}
      {sides && <ToTheBench open={open} />}
      {sides && <IntoDays job={open.id} />}
      <p role="status" className="narrow ml-auto text-sm text-soft">
        {saveWords(open)}
      </p>
      <div className="flex">
        <button
          type="button"
          className="press !py-0 leading-tight"
          onClick={open.session.undo}
          disabled={open.undo === null}
          aria-describedby={open.gap ? "gap" : undefined}
          aria-keyshortcuts="Control+Z"
        >
          Undo
          {open.undo && (
            <span className="narrow block max-w-28 truncate text-xs font-normal">{open.undo}</span>
          )}
        </button>
        <button
          type="button"
          className="press border-l-0"
          onClick={open.session.redo}
          disabled={open.redo === null}
          aria-label={open.redo ? `Redo ${open.redo}` : "Redo"}
          aria-keyshortcuts="Control+Shift+Z"
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
