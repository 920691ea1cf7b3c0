import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused } from "../api/client";
import { NumberField } from "../parts/fields";
import { Alert } from "../parts/notices";
import { percent, say } from "../parts/say";

/** From what is in the tin already, stepwise stronger, by weight. */
export function Tinting() {
  const [tin, setTin] = useState(100);
  const [share, setShare] = useState(5);
  const [target, setTarget] = useState(8);
  const steps = useQuery({
    queryKey: ["tint", tin, share, target],
    queryFn: () =>
      answer(
        api.POST("/api/tint", { body: { tin_g: tin, share: share / 100, target: target / 100, steps: 3 } }),
      ),
    retry: false,
  });
  const fault = steps.error instanceof Refused ? steps.error.problem.faults?.[0] : undefined;
  return (
    <section aria-label="Strengthen what is in the tin" className="mt-6 max-w-xl">
      <h2 className="mb-2 border-b-2 border-ink pb-1 text-base font-bold">Strengthen what is in the tin</h2>
      <div className="grid grid-cols-3 gap-3">
        <NumberField label="In the tin" value={tin} unit="g" min={1} max={20000} onChange={setTin} />
        <NumberField label="Tint in it now" value={share} unit="%" min={0} max={99} onChange={setShare} />
        <NumberField label="Tint wanted" value={target} unit="%" min={0} max={99} onChange={setTarget} />
      </div>
      {steps.error ? (
        <Alert quiet>
          <strong>{steps.error.message}</strong> {fault && `Allowed: ${fault.allowed}.`}
        </Alert>
      ) : (
        <ol className="mt-3">
          {steps.data?.map((step, i) => (
            <li key={step.share} className="flex items-baseline gap-3 border-t border-line py-1.5">
              <span className="narrow w-14 text-sm text-soft">Step {i + 1}</span>
              <span className="numeral text-xl">+ {say(step.add_g)} g</span>
              <span className="narrow text-sm text-soft">
                of tint: {percent(step.share)} of {say(step.tin_g)} g. Try it on a board before the next.
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
