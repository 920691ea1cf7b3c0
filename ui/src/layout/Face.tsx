import { useState } from "react";
import type { FaceLayout, LayoutReply } from "../api/client";
import { type Paper, templateAt } from "../api/layouts";
import type { OpenJob } from "../job/useJob";
import { Choice } from "../parts/fields";
import { MmField } from "../parts/MmField";
import { LABEL } from "../parts/notices";
import { say } from "../parts/say";
import { ElementList } from "./ElementList";
import { FaceDrawing } from "./FaceDrawing";

const PAPERS = [
  { slug: "a4", name: "A4" },
  { slug: "letter", name: "Letter" },
];

interface FaceProps {
  face: FaceLayout;
  papers: LayoutReply["papers"][number] | undefined;
  /** What it is painted in, and what its taped edges are sealed with; "" where nothing is known. */
  colour: string;
  sealedWith: string;
  n: number;
  open: OpenJob;
  zone: string;
  layer: string;
}

/** One face: drawn, listed, and to print at its true size. */
export function Face({ face, papers, colour, sealedWith, n, open, zone, layer }: FaceProps) {
  const [across, setAcross] = useState(100);
  const [down, setDown] = useState(101.6);
  const [paper, setPaper] = useState<Paper>("a4");
  const { taping, laid } = face;
  const fits = [laid.down, laid.across].filter((f) => f !== null && f !== undefined);
  const file = {
    job: open.id,
    zone,
    layer,
    face: n,
    across: across === 100 ? undefined : across,
    down: down === 101.6 ? undefined : down,
  };
  const saved = open.saveState === "saved";
  return (
    <section aria-label={face.name} className="border-t-2 border-ink pt-3">
      <h3 className="font-bold">
        {face.name}
        {face.like > 1 && ` × ${face.like}`}, {say(face.width_mm)} × {say(face.height_mm)} mm
      </h3>
      {fits.map((fit) => (
        <p key={fit.says + fit.length_mm} className="narrow text-sm">
          {fit.says}
        </p>
      ))}
      {face.square && <p className="narrow text-sm">{face.square}</p>}
      <FaceDrawing face={face} />
      <p className="narrow mt-2 text-sm">
        No edge is more than {say(taping.worst_mm)} mm from where it should be: half a tick
        {taping.rolls > 0 &&
          `, and what the tape is off. ${taping.rolls} ${taping.rolls === 1 ? "roll" : "rolls"}: ${taping.by_width
            .map((t) => `${say(t.metres)} m of ${say(t.width_mm)} mm`)
            .join(", ")}`}
        .
      </p>
      <ol className="narrow mt-2 list-decimal pl-5 text-sm">
        {taping.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <ElementList face={face} colour={colour} sealedWith={sealedWith} />
      <details className="mt-2">
        <summary className="inline-flex min-h-11 items-center font-semibold underline">
          At its true size, to print or cut
        </summary>
        <div className="mb-2 max-w-48">
          <Choice
            label="Paper"
            value={paper}
            options={PAPERS}
            onChange={(chosen) => setPaper(chosen as Paper)}
          />
        </div>
        {papers && (
          <p className="narrow mb-2 text-sm">
            {papers[paper].rows * papers[paper].columns} sheets, {papers[paper].rows} down by{" "}
            {papers[paper].columns} across, and one with the key and the rules.
          </p>
        )}
        {saved ? (
          <div className="flex flex-wrap gap-2">
            <a className="press" href={templateAt("pdf", { ...file, paper, what: "face" })} download>
              Sheets to tape together
            </a>
            {papers?.sticks.map((way) => (
              <a
                key={way}
                className="press"
                href={templateAt("pdf", { ...file, paper, what: `stick ${way}` })}
                download
              >
                Story stick{papers.sticks.length > 1 && ` ${way}`}
              </a>
            ))}
            <a className="press" href={templateAt("svg", { ...file, what: "face" })} download>
              SVG
            </a>
            <a className="press" href={templateAt("dxf", { ...file, what: "face" })} download>
              DXF
            </a>
          </div>
        ) : (
          <p className="narrow text-sm">When what you changed is saved.</p>
        )}
        <p className="narrow mt-2 text-sm">
          Print without scaling, and measure both rules on the first sheet. Are they not true, say what they
          measure: the sheets are made again so that they come out true.
        </p>
        <div className="mt-1 grid max-w-md grid-cols-2 gap-3">
          <MmField label="The 100 mm rule measures" value={across} min={95} max={105} onChange={setAcross} />
          <MmField label="The 4 in rule measures" value={down} min={96.52} max={106.68} onChange={setDown} />
        </div>
      </details>
      <p className={`${LABEL} mt-1`}>All places are measured from the left, or the top: the one datum.</p>
    </section>
  );
}
