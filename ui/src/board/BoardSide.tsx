import { useState } from "react";
import { Link } from "react-router";
import { type Board, type Strip, useStepped, useTaught } from "../api/boards";
import { answer, api, type Catalogue, type Job } from "../api/client";
import { useChip, useSeen } from "../api/look";
import { Chip } from "../drawings/Chip";
import { changeLayer } from "../job/change";
import { type OpenJob, useJob } from "../job/useJob";
import { download } from "../parts/download";
import { newId, percent } from "../parts/say";
import { changeStrip } from "./change";
import { StripPanel } from "./StripPanel";

interface BoardSideProps {
  open: OpenJob;
  catalogue: Catalogue;
  board: Board;
  zone: number;
  onZone: (index: number) => void;
}

/** A test board: its strips with what they were expected to be, what they became, and what that teaches. */
export function BoardSide({ open, catalogue, board, zone, onZone }: BoardSideProps) {
  const picked = open.job.zones[zone]?.id;
  const strip = board.strips.find((s) => s.zone === picked) ?? board.strips[0];
  const pick = (id: string) => onZone(open.job.zones.findIndex((z) => z.id === id));
  return (
    <>
      <section
        aria-label="Strips"
        className="flex flex-col gap-3 border-ink p-4 max-md:border-b-2 md:border-r-2"
      >
        <h2 className="wide text-base font-bold">
          Strips for {board.zone_name.toLowerCase()},{" "}
          <Link to={`/jobs/${board.job}/look`} className="underline">
            {board.job_name}
          </Link>
        </h2>
        <ol className="border-2 border-b-0 border-ink">
          {board.strips.map((s) => (
            <StripRow
              key={s.zone}
              open={open}
              strip={s}
              on={s.zone === strip?.zone}
              onPick={() => pick(s.zone)}
            />
          ))}
        </ol>
        <p className="narrow text-sm">
          Strips of {board.width_mm} × {board.length_mm} mm. {board.why}
        </p>
        <OnePot job={open.job} />
        <Layout job={open.job} />
      </section>
      <section
        aria-label="The strip"
        className="border-ink bg-enamel p-4 max-lg:order-first max-lg:border-b-2"
      >
        {strip && (
          <StripPanel
            key={strip.zone}
            open={open}
            catalogue={catalogue}
            board={board}
            strip={strip}
            onChange={(part) =>
              open.edit((job) => changeStrip(job, strip.zone, part), `strip ${strip.code} judged`)
            }
          />
        )}
        <Winner open={open} board={board} strip={strip} />
      </section>
    </>
  );
}

function StripRow(props: { open: OpenJob; strip: Strip; on: boolean; onPick: () => void }) {
  const { open, strip, on, onPick } = props;
  const zone = open.job.zones.find((z) => z.id === strip.zone);
  const chip = useChip({ job: open.job, zone: strip.zone }, 160);
  const seen = useSeen(open.job, strip.zone);
  const words = zone?.name.replace(`${strip.code}: `, "") ?? "";
  return (
    <li className="border-b-2 border-ink">
      <button
        type="button"
        aria-pressed={on}
        className={`grid w-full grid-cols-[4.5rem_1.5rem_1fr] items-center gap-3 text-left ${on ? "bg-dark text-enamel" : "bg-enamel"}`}
        onClick={onPick}
      >
        <Chip
          address={chip.address}
          old={chip.old}
          says={`Strip ${strip.code}: ${seen.data?.afar_words ?? ""}, an estimate`}
          className="w-full border-0"
        />
        {strip.seen ? (
          <span
            role="img"
            aria-label={`seen as ${strip.seen.hex}`}
            className="h-full border-x border-ink"
            style={{ background: strip.seen.hex }}
          />
        ) : (
          <span />
        )}
        <span className="py-1.5">
          <strong>
            <span className="numeral text-lg">{strip.code}</span> {words}
          </strong>
          <span className="narrow block text-sm">
            {strip.verdict || "not judged yet"}
            {strip.note && `: ${strip.note}`}
          </span>
        </span>
      </button>
    </li>
  );
}

/** The ladder of water from one pot. */
function OnePot({ job }: { job: Job }) {
  const stepped = useStepped(job).data;
  if (!stepped) return null;
  return (
    <div className="border-t-2 border-ink pt-2">
      <h3 className="font-bold">One pot for all strips</h3>
      <p className="narrow text-sm">
        Strongest first, thinned for the next: it saves {Math.round(stepped.saved_ml)} ml of paint.
      </p>
      <ol className="narrow text-sm">
        {stepped.steps.map((s) => (
          <li key={s.code} className="border-b border-line py-0.5">
            <strong className="numeral text-base">{s.code}</strong>{" "}
            {s.paint_ml > 0 && (
              <>
                <span className="numeral">{s.paint_ml}</span> ml paint and{" "}
              </>
            )}
            <span className="numeral">{s.water_ml}</span> ml water: about {Math.round(100 * s.water)} % water
          </li>
        ))}
      </ol>
    </div>
  );
}

/** The layout at 1:1, on paper. */
function Layout({ job }: { job: Job }) {
  const [says, setSays] = useState("");
  async function print(paper: "a4" | "letter") {
    setSays("Writing it…");
    try {
      const params = { query: { paper } };
      const pdf = await answer(api.POST("/api/boards/sheet", { params, body: { job }, parseAs: "blob" }));
      download(pdf as Blob, `${job.name} layout.pdf`);
      setSays("Print it at 100 %, and measure the 50 mm.");
    } catch (error) {
      setSays((error as Error).message);
    }
  }
  return (
    <div>
      <div className="flex">
        <button type="button" className="press grow" onClick={() => void print("a4")}>
          Layout at 1:1, A4
        </button>
        <button type="button" className="press -ml-0.5" onClick={() => void print("letter")}>
          US Letter
        </button>
      </div>
      {says && (
        <p role="status" className="narrow mt-1 text-sm">
          {says}
        </p>
      )}
    </div>
  );
}

/** What goes from the board into the job it was for: the winner, and what it taught. */
function Winner({ open, board, strip }: { open: OpenJob; board: Board; strip: Strip | undefined }) {
  const source = useJob(board.job);
  const taught = useTaught(open.job).data;
  const [says, setSays] = useState("");
  const target = source.open?.job.zones.find((z) => z.id === board.zone);
  const zone = open.job.zones.find((z) => z.id === strip?.zone);
  const at = target?.layers.findIndex((l) => l.id === board.ladders[0]?.layer) ?? -1;
  const now = target?.layers[at]?.hides ?? null;

  async function take() {
    if (!source.open || !target || !zone || !strip) return;
    const done = await source.open.decide(`strip ${strip.code} of a board taken`, {
      edit: "take strip",
      seed: newId(),
      zone: board.zone,
      name: "Before the board",
      strip: zone,
    });
    setSays(
      done
        ? `Strip ${strip.code} is planned on ${target.name.toLowerCase()} now; what was is kept as a look.`
        : "",
    );
  }

  function believe(hides: number | null, kept: number | null) {
    const index = source.open?.job.zones.findIndex((z) => z.id === board.zone) ?? -1;
    if (!source.open || index < 0 || at < 0) return;
    source.open.edit(
      (job) => changeLayer(job, index, at, (l) => ({ ...l, hides, ...(kept === null ? {} : { kept }) })),
      hides === null ? "what a board taught put back" : "what a board taught",
    );
    setSays(hides === null ? "As it was known before." : "The estimates of the job follow the board now.");
  }

  if (!board.job || source.failed)
    return (
      <p className="narrow mt-4 border-t-2 border-ink pt-2 text-sm">
        The job this board was for cannot be opened: take what you learned over by hand.
      </p>
    );
  return (
    <div className="mt-4 flex flex-col gap-3 border-t-2 border-ink pt-3">
      <button
        type="button"
        className="press press-strong"
        disabled={!target || !zone}
        onClick={() => void take()}
      >
        Take strip {strip?.code} into {board.job_name}
      </button>
      {taught && (
        <div>
          <h3 className="font-bold">What the board shows</h3>
          <p className="narrow text-sm">
            From {taught.strips} {taught.strips === 1 ? "strip" : "strips"}: this layer hides{" "}
            <strong className="numeral text-base">{taught.hides.toFixed(2)}</strong> times as strongly as was
            believed, between {taught.least.toFixed(2)} and {taught.most.toFixed(2)}
            {taught.kept !== null && <>, and wiping leaves {percent(taught.kept)}</>}.
          </p>
          {!taught.fits && (
            <p className="narrow border-l-4 border-ink pl-2 text-sm">
              <strong>That does not explain what was seen.</strong> Look at the colour of the paint itself, or
              at what lies beneath, before you believe it.
            </p>
          )}
          <table className="narrow w-full text-sm">
            <thead>
              <tr className="text-left">
                <th>Strip</th>
                <th>expected</th>
                <th>seen</th>
                <th>apart</th>
                <th>then</th>
              </tr>
            </thead>
            <tbody>
              {taught.evidence.map((e) => (
                <tr key={e.code} className="border-t border-line">
                  <td className="numeral">{e.code}</td>
                  <td>
                    <Swatch hex={e.predicted} />
                  </td>
                  <td>
                    <Swatch hex={e.seen} />
                  </td>
                  <td>ΔE {e.off.toFixed(1)}</td>
                  <td>{e.after.toFixed(1)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-2 flex">
            <button
              type="button"
              className="press grow text-sm"
              onClick={() => believe(taught.hides, taught.kept)}
            >
              Believe the board
            </button>
            <button
              type="button"
              className="press -ml-0.5 text-sm"
              disabled={now === null}
              onClick={() => believe(null, null)}
            >
              Use the starting value again
            </button>
          </div>
        </div>
      )}
      {says && (
        <p role="status" className="narrow border-l-4 border-ink pl-2 text-sm">
          {says}{" "}
          <Link to={`/jobs/${board.job}/look`} className="underline">
            To {board.job_name}
          </Link>
        </p>
      )}
    </div>
  );
}

function Swatch({ hex }: { hex: string }) {
  return (
    <span
      role="img"
      aria-label={hex}
      className="block h-6 w-16 border border-ink"
      style={{ background: hex }}
    />
  );
}
