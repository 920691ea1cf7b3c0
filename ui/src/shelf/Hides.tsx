import { useState } from "react";
import { answer, api, Refused } from "../api/client";
import { Choice, NumberField } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";

const WAYS = [
  { slug: "drawn down", name: "one coat over black and white" },
  { slug: "tint", name: "a little of it in white" },
];

/** How strongly a paint hides, measured: a coat drawn over black and white card, or a tint in white. */
export function Hides({ hex, onScattering }: { hex: string; onScattering: (value: number) => void }) {
  const [way, setWay] = useState("drawn down");
  const [colours, setColours] = useState({ black: hex, white: hex, base: "#f4f1ea", seen: hex });
  const [share, setShare] = useState(10);
  const [says, setSays] = useState("");
  const [refused, setRefused] = useState("");
  async function measure() {
    try {
      const body =
        way === "tint"
          ? { hex, tint: { white: colours.base, share: share / 100, seen: colours.seen } }
          : { hex, drawn: { over_black: colours.black, over_white: colours.white } };
      const { scattering } = await answer(api.POST("/api/look/hides", { body }));
      setRefused("");
      setSays(`It hides ${scattering.toFixed(1)} in one coat.`);
      onScattering(Math.round(scattering * 100) / 100);
    } catch (error) {
      const fault = error instanceof Refused ? error.problem.faults?.[0] : undefined;
      setSays("");
      setRefused(`${(error as Error).message}${fault ? ` Allowed: ${fault.allowed}.` : ""}`);
    }
  }
  const pick = (label: string, part: keyof typeof colours) => (
    <label className={LABEL}>
      <span className="block">{label}</span>
      <input
        type="color"
        className="h-11 w-16 border-2 border-ink bg-enamel p-0.5"
        value={colours[part]}
        onChange={(e) => setColours({ ...colours, [part]: e.target.value })}
      />
    </label>
  );
  return (
    <div className="mt-4 border-2 border-dashed border-soft p-3">
      <h3 className="font-bold">See how it hides</h3>
      <p className="narrow text-sm text-soft">
        Dry and unsealed, in daylight; pick what you see. Then matches and pictures go by your paint, not by
        its class.
      </p>
      <Choice label="By" value={way} options={WAYS} onChange={setWay} />
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {way === "tint" ? (
          <>
            {pick("the white", "base")}
            <span className="w-28">
              <NumberField
                label="of this paint"
                value={share}
                unit="%"
                min={1}
                max={60}
                onChange={setShare}
              />
            </span>
            {pick("makes", "seen")}
          </>
        ) : (
          <>
            {pick("over black", "black")}
            {pick("over white", "white")}
          </>
        )}
        <button type="button" className="press" onClick={() => void measure()}>
          Use it
        </button>
      </div>
      {says && (
        <p role="status" className="narrow mt-1 text-sm">
          {says}
        </p>
      )}
      {refused && <Alert>{refused}</Alert>}
    </div>
  );
}
