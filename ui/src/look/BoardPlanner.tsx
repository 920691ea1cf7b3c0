import { useState } from "react";
import { useNavigate } from "react-router";
import { type Ladder, useMakeBoard, useOffers } from "../api/boards";
import type { Catalogue } from "../api/client";
import type { OpenJob } from "../job/useJob";
import { Choice } from "../parts/fields";
import { Alert, LABEL } from "../parts/notices";

interface BoardPlannerProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}

const NONE = "";

/** A test board for a zone: what is varied, which steps, and why it is worth painting. */
export function BoardPlanner({ open, catalogue, zone: index, layer: at, onLayer }: BoardPlannerProps) {
  const zone = open.job.zones[index];
  const layer = zone?.layers[at];
  const offers = useOffers(open.job, zone?.id ?? "", layer?.id ?? "");
  const make = useMakeBoard();
  const navigate = useNavigate();
  const [first, setFirst] = useState("");
  const [second, setSecond] = useState(NONE);
  const [without, setWithout] = useState<string[]>([]);
  if (!zone || !layer) return <p className="text-soft">No layer yet: take a finish from the library.</p>;
  const ladders = offers.data?.ladders ?? [];
  const one = ladders.find((o) => o.name === first) ?? ladders[0];
  const two = ladders.find((o) => o.name === second && o !== one);
  const left = one?.steps.flatMap((says, i) => (without.includes(says) ? [] : [i])) ?? [];
  const most = catalogue.caps;
  const strips = left.length * (two?.ladder.rungs.length ?? 1);
  const fits = strips > 0 && strips <= most.strips && left.length <= most.rungs;

  function paint() {
    if (!zone || !one || !fits) return;
    const mine: Ladder = { ...one.ladder, rungs: left.flatMap((i) => one.ladder.rungs[i] ?? []) };
    make.mutate(
      { job: open.job, job_id: open.id, zone: zone.id, ladders: two ? [mine, two.ladder] : [mine] },
      { onSuccess: (board) => navigate(`/jobs/${board.id}/board`) },
    );
  }

  return (
    <div className="flex flex-col gap-4">
      <Reasons of={offers.data?.reasons ?? []} />
      <Choice
        label="Layer to try"
        value={String(at)}
        options={zone.layers
          .map((l, i) => ({
            slug: String(i),
            name: `${i + 1}. ${catalogue.recipes.find((r) => r.slug === l.recipe)?.name ?? l.recipe}`,
          }))
          .reverse()}
        onChange={(i) => {
          setFirst("");
          setSecond(NONE);
          setWithout([]);
          onLayer(Number(i));
        }}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Choice
          label="What is varied"
          value={one?.name ?? ""}
          options={ladders.map((o) => ({ slug: o.name, name: o.name }))}
          onChange={(name) => {
            setFirst(name);
            setWithout([]);
          }}
        />
        <Choice
          label="Across it, as a grid"
          value={two?.name ?? NONE}
          options={[
            { slug: NONE, name: "nothing else" },
            ...ladders.filter((o) => o !== one).map((o) => ({ slug: o.name, name: o.name })),
          ]}
          onChange={setSecond}
        />
      </div>
      {one && (
        <fieldset>
          <legend className={LABEL}>Strips</legend>
          <div className="flex flex-wrap pt-0.5 pl-0.5 [&>*]:-mt-0.5 [&>*]:-ml-0.5">
            {one.steps.map((says) => {
              const on = !without.includes(says);
              return (
                <button
                  key={says}
                  type="button"
                  aria-pressed={on}
                  className={`press text-sm ${on ? "press-strong" : ""}`}
                  onClick={() => setWithout(on ? [...without, says] : without.filter((w) => w !== says))}
                >
                  {says}
                </button>
              );
            })}
          </div>
          {two && <p className="narrow mt-1 text-sm">each with: {two.steps.join(", ")}</p>}
        </fieldset>
      )}
      <p className="narrow text-sm text-soft">
        On {catalogue.grounds.find((g) => g.slug === zone.ground)?.name ?? zone.ground}, prepared, laid, dried
        and sealed as {zone.name.toLowerCase()} will be.
      </p>
      {make.error && <Alert>{make.error.message}</Alert>}
      <button type="button" className="press press-strong" disabled={!fits || make.isPending} onClick={paint}>
        {toMake(strips, fits, most.strips)}
      </button>
    </div>
  );
}

/** Why a board is worth painting. */
function Reasons({ of }: { of: readonly string[] }) {
  return (
    <div>
      <h3 className="font-bold">
        {of.length ? "Worth a board before the piece" : "No need, but never wrong"}
      </h3>
      <ul className="narrow text-sm">
        {of.map((reason) => (
          <li key={reason} className="border-l-4 border-ink pl-2">
            {reason}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What the key says that makes a board of so many strips; or why it cannot. */
function toMake(strips: number, fits: boolean, most: number): string {
  if (fits) return `Make a board of ${strips} ${strips === 1 ? "strip" : "strips"}`;
  return strips === 0 ? "Choose one strip or more" : `${strips} strips are too many: at most ${most}`;
}
