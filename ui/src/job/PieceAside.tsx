import { Link, useLocation } from "react-router";
import type { Catalogue } from "../api/client";
import { tileFor, useTiles } from "../api/look";
import { PieceDrawing } from "../drawings/PieceDrawing";
import { NumberField } from "../parts/fields";
import { sameSpot } from "../parts/useAddress";
import { useArea } from "../parts/useArea";
import { changeLayer } from "./change";
import { setKind } from "./PieceSide";
import { Question } from "./UsePanel";
import type { OpenJob } from "./useJob";
import { ZoneList } from "./ZoneList";
import { ZonesPanel } from "./ZonesPanel";

interface PieceAsideProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  onZone: (index: number) => void;
}

/** The piece beside the work: small, lit where the work is; on a narrow screen a press away. */
export function PieceAside(props: PieceAsideProps) {
  const { open, catalogue, zone: index, onZone } = props;
  const { search } = useLocation();
  const { area } = useArea();
  const zone = open.job.zones[index];
  if (!zone) return null;
  if (!open.job.piece)
    return (
      <aside aria-label="The piece" className="flex flex-col gap-4 p-4">
        <PotWithoutPiece open={open} />
        <details>
          <summary className="min-h-11 py-2.5 font-semibold">What it goes on</summary>
          <ZonesPanel open={open} catalogue={catalogue} zone={index} onZone={onZone} />
        </details>
      </aside>
    );
  const measured = open.plan.zones.find((z) => z.zone === zone.id)?.area;
  return (
    <aside
      aria-label="The piece"
      className="flex min-w-0 flex-col gap-2 px-4 pt-3 lg:py-4 [@media(min-width:64rem)_and_(min-height:500px)]:sticky [@media(min-width:64rem)_and_(min-height:500px)]:top-0 lg:self-start"
    >
      <a href="#side" className="press sr-only focus:not-sr-only">
        Past the piece, to the work
      </a>
      <Cautions open={open} />
      <details data-paper className="lg:hidden print:block">
        <summary className="flex min-h-11 items-center gap-3">
          <span aria-hidden>▸</span>
          <span className="font-semibold">{zone.name}</span>
          {measured && <span>{area(measured.value)}</span>}
          {open.job.zones.length > 1 && (
            <span className="narrow text-sm text-soft">and {open.job.zones.length - 1} more</span>
          )}
        </summary>
        <Small {...props} />
      </details>
      <div className="max-lg:hidden">
        <Small {...props} />
      </div>
      <Link
        to={`/jobs/${open.id}/piece${sameSpot(search)}`}
        className="inline-flex min-h-11 items-center text-sm underline max-lg:hidden print:hidden"
      >
        {open.plan.presumed.length > 0 ? "Measure it" : "Sizes, zones and use"}
      </Link>
    </aside>
  );
}

function Small({ open, catalogue, zone: index, onZone }: PieceAsideProps) {
  const { job, plan } = open;
  const tileMm = tileFor(plan.drawing, catalogue.tiles_mm);
  const tiles = useTiles(job, tileMm);
  const picked = job.zones[index]?.id ?? "";
  const pick = (id: string) => onZone(job.zones.findIndex((z) => z.id === id));
  return (
    <>
      {plan.drawing && (
        <PieceDrawing
          small
          drawing={plan.drawing}
          fills={Object.fromEntries(plan.zones.map((z) => [z.zone, z.hex]))}
          tiles={tiles}
          tileMm={tileMm}
          patterns={plan.patterns}
          sizes={{}}
          areas={{}}
          picked={picked}
          onPickZone={pick}
          editor={() => null}
        />
      )}
      <ZoneList open={open} zone={index} onZone={onZone} />
      {plan.presumed.length > 0 && <p className="narrow text-sm">Sizes are usual ones, not measured.</p>}
    </>
  );
}

/** What can hurt somebody, and the question that is still open, with its answers. What the head says is not said twice. */
function Cautions({ open }: { open: OpenJob }) {
  const { cautions, standing } = open.plan;
  const lead = (rule: string) => rule === "lead-untested" || rule === "lead-found";
  return cautions.map((caution) => (
    <details data-paper key={caution.rule} className="narrow border-l-4 border-ink pl-2 text-sm">
      <summary className="min-h-11 py-2.5 font-bold">
        {caution.rule !== standing.rule
          ? `Take care. ${caution.says}`
          : lead(caution.rule)
            ? "Answer: lead?"
            : "Why, and what helps"}
      </summary>
      <p className="pb-2">{caution.reason}</p>
      {lead(caution.rule) && (
        <div className="pb-3 text-base">
          <Question open={open} of="lead" label="Lead in what was there before" />
        </div>
      )}
    </details>
  ));
}

function PotWithoutPiece({ open }: { open: OpenJob }) {
  const want = open.job.zones[0]?.layers[0]?.want;
  return (
    <>
      <h2 className="wide text-base font-bold">A pot, with no piece</h2>
      {want?.by === "total" && (
        <NumberField
          label="How much of the finished mix"
          value={want.ml}
          unit="ml"
          min={0.1}
          max={200000}
          onChange={(ml) =>
            open.edit((job) => changeLayer(job, 0, 0, (layer) => ({ ...layer, want: { by: "total", ml } })))
          }
        />
      )}
      <button type="button" className="press" onClick={() => setKind(open, "board")}>
        Put it on a piece
      </button>
    </>
  );
}
