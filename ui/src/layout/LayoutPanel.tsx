import type { Catalogue, Layer, Layout } from "../api/client";
import { useLayout, useLayoutKinds } from "../api/layouts";
import { changeLayer } from "../job/change";
import type { OpenJob } from "../job/useJob";
import { Failure } from "../parts/Failure";
import { Choice } from "../parts/fields";
import { Fault } from "../parts/notices";
import { percent, say } from "../parts/say";
import { Face } from "./Face";
import { type ChangeLayout, LayoutFields } from "./LayoutFields";
import { MoreFields } from "./MoreFields";

interface LayoutPanelProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
}

/** Where a layer goes: a pattern that comes out even, drawn to scale, taped, and at its true size. */
export function LayoutPanel({ open, catalogue, zone: index, layer: at }: LayoutPanelProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const found = useLayout(open.job, zone?.id ?? "", layer?.id ?? "", Boolean(layer?.layout));
  const kinds = useLayoutKinds();
  if (!zone || !layer) return <p className="text-soft">No layer yet.</p>;
  const { layout } = layer;
  const usual = catalogue.techniques.find((t) => t.slug === layer.technique)?.touched ?? 1;
  const keep = (made: Layout | null) =>
    open.edit((job) =>
      changeLayer(job, index, at, (x: Layer) => ({
        ...x,
        layout: made,
        ...(made ? {} : { touched: usual }),
      })),
    );
  const change: ChangeLayout = (part) => layout && keep({ ...layout, ...part });
  const choose = (kind: string) => {
    const begun = kinds.data?.find((k) => k.kind === kind)?.layout;
    // Where it lies stays; the tapes and the rule are those last said in this job; its widths are those of the kind.
    const said = layout ?? open.job.zones.flatMap((z) => z.layers).find((x) => x.layout)?.layout;
    const tools = said && {
      tapes_mm: said.tapes_mm,
      tape_off_mm: said.tape_off_mm,
      tick_mm: said.tick_mm,
      pen_mm: said.pen_mm,
    };
    const lies = layout && {
      surfaces: layout.surfaces,
      spared: layout.spared,
      diagonals_mm: layout.diagonals_mm,
    };
    keep(begun ? { ...begun, ...tools, ...lies } : null);
  };
  const reply = layout ? found.data : undefined;
  const drawn = open.plan.patterns.find((p) => p.zone === zone.id && p.layer === layer.id);
  return (
    <div className="flex flex-col gap-4">
      <Choice
        label={`Layer ${at + 1} goes`}
        value={layout?.kind ?? ""}
        options={[
          { slug: "", name: "all over, or as it is put on" },
          ...(kinds.data ?? []).map((k) => ({ slug: k.kind, name: k.says })),
        ]}
        onChange={choose}
      />
      {kinds.error && <Failure error={kinds.error} onRetry={() => void kinds.refetch()} />}
      {layout && <LayoutFields layout={layout} onChange={change} />}
      {layout && reply && reply.on.length > 1 && (
        <Choice
          label="On"
          value={layout.surfaces[0] ?? ""}
          options={[{ slug: "", name: "every face it fits on" }, ...reply.on]}
          onChange={(surface) => change({ surfaces: surface ? [surface] : [] })}
        />
      )}
      {layout && <MoreFields layout={layout} face={reply?.faces[0]} onChange={change} />}
      {reply && reply.left_out.length > 0 && (
        <p className="narrow text-sm">Does not fit on {reply.left_out.join(", ")}: left out.</p>
      )}
      {found.error && <Failure error={found.error} onRetry={() => void found.refetch()} />}
      {reply?.says && <Fault says={reply.says} allowed={reply.allowed ?? ""} />}
      {reply && reply.faces.length > 0 && (
        <>
          <Paints share={reply.share} metres={reply.metres} old={found.isPlaceholderData} />
          <Offers reply={reply} tick={layout?.tick_mm ?? 1} onTake={keep} />
          {reply.faces.map((face, n) => (
            <Face
              key={face.surface + face.name}
              face={face}
              papers={reply.papers[n]}
              colour={drawn?.colour ?? ""}
              sealedWith={drawn?.sealed_with ?? ""}
              n={n}
              open={open}
              zone={zone.id}
              layer={layer.id}
            />
          ))}
        </>
      )}
    </div>
  );
}

/** What of the zone is painted, and how much tape that takes. */
function Paints({ share, metres, old }: { share: number; metres: number; old: boolean }) {
  return (
    <p role="status" data-stale={old || undefined}>
      Paints <span className="numeral text-xl">{percent(share)}</span> of the zone
      {metres > 0 && (
        <>
          ; about <span className="numeral text-xl">{say(metres)} m</span> of tape
        </>
      )}
      .
    </p>
  );
}

interface OffersProps {
  reply: NonNullable<ReturnType<typeof useLayout>["data"]>;
  tick: number;
  onTake: (layout: Layout) => void;
}

/** Ways to make it easier on the table: whole ticks, or gaps as wide as a tape there is. */
function Offers({ reply, tick, onTake }: OffersProps) {
  const { to_tick: ticked, by_tape: taped } = reply;
  if (!ticked && taped.length === 0) return null;
  return (
    <div className="flex flex-col items-start gap-2">
      {ticked && (
        <button type="button" className="press text-left" onClick={() => onTake(ticked.layout as Layout)}>
          Make every width whole {say(tick)} mm: {say(ticked.over_mm)} mm stay over, half at each end
        </button>
      )}
      {taped.map((offer) => (
        <button
          key={offer.tape_mm}
          type="button"
          className="press text-left"
          onClick={() => onTake(offer.layout as Layout)}
        >
          Gaps of one {say(offer.tape_mm)} mm tape: stripes {percent(Math.abs(offer.changed))}{" "}
          {offer.changed < 0 ? "narrower" : "wider"}
        </button>
      ))}
    </div>
  );
}
