import type { FaceLayout } from "../api/client";
import { say } from "../parts/say";

const EDGES: Record<FaceLayout["taping"]["runs"][number]["edge"], string> = {
  first: "first edge",
  second: "second edge",
  outer: "outer edge",
  inner: "inner edge",
  row: "along its row",
  ends: "across",
};

interface ElementListProps {
  face: FaceLayout;
  colour: string;
  sealedWith: string;
}

/** Every element with its place from the datum, its width, its tape and its pass: the drawing in words. */
export function ElementList({ face, colour, sealedWith }: ElementListProps) {
  const { taping } = face;
  const tapes = (number: number, runs: string, pass: number) =>
    taping.runs
      .filter((r) => r.stripe === number && r.painted_in === pass)
      .map(
        (r) =>
          `${(r.count ?? 1) > 1 ? `${r.count} × ` : ""}${EDGES[r.edge]} ${say(r.tape_mm)} mm, ${say(r.length_mm / 1000)} m`,
      )
      .join("; ") || (runs === "round" || runs === "box" ? "" : "ends at the edge");
  const boxes = taping.elements.some((e) => e.runs === "box");
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 items-center font-semibold underline">
        All {taping.elements.length} with their marks
      </summary>
      {(colour || sealedWith) && (
        <p className="narrow text-sm">
          {colour && `All in ${colour}. `}
          {sealedWith && `Every taped edge is sealed with ${sealedWith.toLowerCase()} first.`}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <caption className="sr-only">Elements of {face.name}</caption>
          <thead>
            <tr className="narrow text-sm text-soft">
              <th scope="col">No.</th>
              <th scope="col">Mark from</th>
              <th scope="col">to</th>
              {boxes && (
                <>
                  <th scope="col">down from</th>
                  <th scope="col">to</th>
                </>
              )}
              <th scope="col">exactly</th>
              <th scope="col">wide</th>
              <th scope="col">tape</th>
              <th scope="col">painted</th>
            </tr>
          </thead>
          <tbody>
            {taping.elements.map((one) => (
              <tr key={one.runs + one.number} className="border-t border-line align-top">
                <th scope="row" className="numeral py-1 pr-2">
                  {one.number}
                  {one.runs === "across" && " across"}
                  {boxes && one.name.length === 1 && ` ${one.name}`}
                </th>
                <td className="numeral py-1 pr-2">{say(one.marks_mm[0] ?? 0)}</td>
                <td className="numeral py-1 pr-2">{say(one.marks_mm[1] ?? 0)}</td>
                {boxes && (
                  <>
                    <td className="numeral py-1 pr-2">{say(one.down_marks_mm?.[0] ?? 0)}</td>
                    <td className="numeral py-1 pr-2">{say(one.down_marks_mm?.[1] ?? 0)}</td>
                  </>
                )}
                <td className="narrow py-1 pr-2 text-sm">
                  {one.start_mm.toFixed(1)}–{one.end_mm.toFixed(1)}
                </td>
                <td className="narrow py-1 pr-2 text-sm">{one.width_mm.toFixed(1)} mm</td>
                <td className="narrow py-1 pr-2 text-sm">{tapes(one.number, one.runs, one.painted_in)}</td>
                <td className="narrow py-1 text-sm">go {one.painted_in}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
