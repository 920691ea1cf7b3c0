import { Tabs } from "radix-ui";
import type { Catalogue, PieceKind } from "../api/client";
import { tileFor, useTiles } from "../api/look";
import { useSettings } from "../api/workshop";
import { PieceDrawing } from "../drawings/PieceDrawing";
import { ChooserField } from "../parts/ChooserField";
import { Choice, LengthField, Stepper } from "../parts/fields";
import { LABEL } from "../parts/notices";
import { newId } from "../parts/say";
import { useAddress } from "../parts/useAddress";
import { useArea } from "../parts/useArea";
import { Why } from "../parts/Why";
import { changePiece } from "./change";
import { NotesPanel } from "./NotesPanel";
import { PartsPanel } from "./PartsPanel";
import { UsePanel } from "./UsePanel";
import type { OpenJob } from "./useJob";
import { ZonesPanel } from "./ZonesPanel";

interface PieceSideProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  onZone: (index: number) => void;
}

const ROUGH = [
  { slug: "measured", name: "with a tape" },
  { slug: "small", name: "roughly, a small one" },
  { slug: "medium", name: "roughly, a usual one" },
  { slug: "large", name: "roughly, a large one" },
];

/** The piece: drawn from its sizes, its zones, and what it must stand. */
export function PieceSide({ open, catalogue, zone: index, onZone }: PieceSideProps) {
  const { job, plan } = open;
  const [tab, setTab] = useAddress("tab", "sizes");
  const settings = useSettings();
  const { area, parts } = useArea();
  const tileMm = tileFor(plan.drawing, catalogue.tiles_mm);
  const tiles = useTiles(job, tileMm);
  const zone = job.zones[index];
  const planned = plan.zones.find((z) => z.zone === zone?.id);
  const kind = catalogue.pieces.find((k) => k.slug === job.piece?.kind);
  if (!zone) return null;
  const fills = Object.fromEntries(plan.zones.map((z) => [z.zone, z.hex]));
  const areas = Object.fromEntries(plan.surfaces.map((s) => [s.slug, area(s.area_m2)]));

  if (!job.piece || !kind) return null;
  const piece = job.piece;
  const typed = Object.fromEntries(
    Object.entries(piece.sizes).map(([size, l]) => [size, l.source === "usual" ? `~ ${l.typed}` : l.typed]),
  );
  const missing = kind.sizes.filter((s) => !piece.sizes[s.slug]);

  const sizeField = (size: PieceKind["sizes"][number]) => (
    <LengthField
      key={size.slug}
      label={size.name}
      value={piece.sizes[size.slug]}
      within={[size.least_mm, size.most_mm]}
      onUnread={(typed) =>
        void open.decide(`${size.name.toLowerCase()} ${typed}`, {
          edit: "size",
          seed: newId(),
          size: size.slug,
          typed,
          bare: settings.data?.measures === "us" ? "in" : "mm",
        })
      }
      fault={plan.problems.find((p) => p.at === `/piece/sizes/${size.slug}`)}
      onChange={(length) =>
        open.edit((j) => changePiece(j, (p) => ({ ...p, sizes: { ...p.sizes, [size.slug]: length } })))
      }
    />
  );

  return (
    <section
      aria-label="The piece"
      className="grid content-start gap-x-8 gap-y-4 p-4 sm:px-6 lg:grid-cols-[minmax(0,1fr)_minmax(20rem,27rem)]"
    >
      <div className="flex min-w-0 flex-col gap-3">
        {plan.drawing ? (
          <PieceDrawing
            drawing={plan.drawing}
            fills={fills}
            tiles={tiles}
            tileMm={tileMm}
            patterns={plan.patterns}
            sizes={typed}
            areas={areas}
            picked={zone.id}
            onPickZone={(id) => onZone(job.zones.findIndex((z) => z.id === id))}
            editor={(size) => {
              const spec = kind.sizes.find((s) => s.slug === size);
              return spec ? sizeField(spec) : null;
            }}
          />
        ) : (
          <p className="border-2 border-dashed border-line px-3 py-8 text-soft">
            {missing.length > 0 && piece.rough === "measured"
              ? `Still to measure: the ${missing.map((s) => s.name.toLowerCase()).join(", ")}. Type them as you say them: 750, 75 cm, 29 1/2".`
              : `${plan.problems.find((p) => p.at.startsWith("/piece"))?.says ?? ""} With this it cannot be drawn.`}
          </p>
        )}
        <div className="flex flex-wrap items-baseline gap-x-6">
          <span>
            <span className={LABEL}>Area to coat, {zone.name.toLowerCase()}</span>
            {planned?.area ? (
              <Why figure={planned.area} name="Area to coat">
                <span className="numeral text-2xl">{parts(planned.area.value).value}</span>
                <span className="text-lg">{parts(planned.area.value).unit}</span>
              </Why>
            ) : (
              <span className="numeral text-2xl text-soft">–</span>
            )}
          </span>
          {plan.rough > 0 && planned?.area && (
            <span className="narrow text-sm">
              between {area(planned.area.value * (1 - plan.rough))} and{" "}
              {area(planned.area.value * (1 + plan.rough))}, until all sizes are measured
            </span>
          )}
        </div>
        {plan.presumed.length > 0 && (
          <p>
            <strong>Still to measure:</strong> {plan.presumed.map((n) => n.toLowerCase()).join(", ")}. Until
            then the usual sizes are taken.
          </p>
        )}
        <AsItHadThem open={open} />
      </div>
      <Tabs.Root value={tab} onValueChange={setTab}>
        <div className="mb-3">
          <ChooserField
            label="Piece"
            of="piece"
            value={piece.kind}
            options={catalogue.pieces}
            onChoose={(slug) => setKind(open, slug)}
          />
        </div>
        <Tabs.List aria-label="About the piece" className="flex">
          {[
            ["sizes", "Sizes"],
            ["zones", `Zones (${job.zones.length})`],
            ["use", "Use"],
            ["notes", "Notes"],
          ].map(([slug, name]) => (
            <Tabs.Trigger key={slug} value={slug ?? ""} className="side grow">
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="sizes" className="flex flex-col gap-3 pt-3">
          {missing.length > 0 && (
            <button
              type="button"
              className="press"
              onClick={() =>
                void open.decide("the usual sizes", {
                  edit: "usual sizes",
                  seed: newId(),
                  bare: settings.data?.measures === "us" ? "in" : "mm",
                })
              }
            >
              Take the usual sizes until they are measured
            </button>
          )}
          <div className="grid grid-cols-2 items-end gap-2">
            {kind.sizes.map(sizeField)}
            {kind.counts.map((count) => (
              <div key={count.slug} className="self-start">
                <Stepper
                  label={count.name}
                  value={piece.counts[count.slug] ?? count.usual}
                  min={count.least}
                  max={count.most}
                  onChange={(n) =>
                    open.edit((j) =>
                      changePiece(j, (p) => ({ ...p, counts: { ...p.counts, [count.slug]: n } })),
                    )
                  }
                />
              </div>
            ))}
            <Choice
              label="Measured"
              value={piece.rough}
              options={ROUGH}
              onChange={(slug) =>
                open.edit((j) => changePiece(j, (p) => ({ ...p, rough: slug as typeof p.rough })))
              }
            />
            <Stepper
              label="How many the same"
              value={piece.like}
              min={1}
              max={500}
              onChange={(like) => open.edit((j) => changePiece(j, (p) => ({ ...p, like })))}
            />
          </div>
          <PartsPanel open={open} catalogue={catalogue} zone={index} />
          {open.plan.drawing && (
            <a className="press text-center" href={`/api/jobs/${open.id}/drawing.svg`} download>
              Save the drawing
            </a>
          )}
          <a className="press text-center" href={`/api/jobs/${open.id}/file`} download>
            Save the job as a file
          </a>
        </Tabs.Content>
        <Tabs.Content value="zones" className="pt-3">
          <ZonesPanel open={open} catalogue={catalogue} zone={index} onZone={onZone} />
        </Tabs.Content>
        <Tabs.Content value="notes" className="pt-3">
          <NotesPanel open={open} />
        </Tabs.Content>
        <Tabs.Content value="use" className="pt-3">
          <UsePanel open={open} />
        </Tabs.Content>
      </Tabs.Root>
    </section>
  );
}

export function setKind(open: OpenJob, kind: string) {
  void open.decide("another piece", { edit: "piece", seed: newId(), kind });
}

/** What the job has otherwise than the book, each with the book’s to take. */
function AsItHadThem({ open }: { open: OpenJob }) {
  const { kept } = open.plan;
  if (!kept.length) return null;
  const what = kept.length === 1 ? kept[0]?.name : `${kept.length} entries`;
  return (
    <details className="narrow border-2 border-line bg-enamel px-2 text-sm">
      <summary className="min-h-11 py-2.5">
        <strong>{what}</strong> as this job had {kept.length === 1 ? "it" : "them"}; the book says otherwise.
      </summary>
      <ul className="flex flex-col gap-2 pb-2">
        {kept.map((entry) => (
          <li
            key={`${entry.kind}/${entry.slug}`}
            className="flex flex-wrap items-center justify-between gap-2"
          >
            <span>
              <strong>{entry.name}</strong>
              {entry.differs.map((line) => (
                <span key={line} className="block text-soft">
                  {line}
                </span>
              ))}
            </span>
            <button
              type="button"
              className="press"
              aria-label={`Take ${entry.name} from the book`}
              onClick={() =>
                void open.session.decide(`${entry.name} from the book`, {
                  edit: "take entry",
                  seed: newId(),
                  kind: entry.kind,
                  slug: entry.slug,
                })
              }
            >
              Take the book’s
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
