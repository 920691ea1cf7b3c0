import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Catalogue } from "../api/client";
import { useChip, useSeen } from "../api/look";
import { Chip } from "../drawings/Chip";
import { DryingStrip, Range } from "../drawings/DryingStrip";
import type { OpenJob } from "../job/useJob";
import { useAddress } from "../parts/useAddress";
import { BoardPlanner } from "./BoardPlanner";
import { Compare } from "./Compare";
import { Knobs } from "./Knobs";
import { Match } from "./Match";

interface LookSideProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}

/** What a zone will look like: its picture, its strip, and what can be moved, compared and matched. All estimates. */
export function LookSide({ open, catalogue, zone: index, layer, onLayer }: LookSideProps) {
  const zone = open.job.zones[index];
  const [upto, setUpto] = useState("");
  const [tab, setTab] = useAddress("tab", "move");
  const there = zone?.layers.some((l) => l.id === upto) ? upto : "";
  const chip = useChip({ job: open.job, zone: zone?.id ?? "", upto: there }, 640);
  const seen = useSeen(open.job, zone?.id ?? "");
  if (!zone) return null;
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground)?.name ?? zone.ground;
  const said = seen.data;
  const film = said?.column.films.find((f) => f.layer === there);
  const words = film ? film.dry.words : (said?.afar_words ?? "");
  const part = film && there !== zone.layers.at(-1)?.id;

  return (
    <>
      <section
        aria-label="What it will look like"
        className="flex flex-col gap-3 border-ink p-4 md:border-r-2"
      >
        <h2 className="wide text-base font-bold">{zone.name}</h2>
        <figure className="max-w-[19rem]">
          <Chip
            address={chip.address}
            old={chip.old}
            says={`${zone.name}${part ? ` up to ${film.name.toLowerCase()}` : ""}: ${words}, an estimate`}
            className="w-full"
          />
          <figcaption className="mt-2">
            <strong className="first-letter:uppercase">{words}</strong>{" "}
            <span className="narrow text-sm">
              {part ? `with ${film.name.toLowerCase()} on, dry` : "from a few steps away"}
              {said && (
                <>
                  , <Range shade={film?.dry ?? said.column.top} />
                </>
              )}
              . An estimate; the bar is 50 mm.
            </span>
          </figcaption>
          <button type="button" className="press mt-2 w-full text-sm" onClick={() => setTab("board")}>
            Make a test board
          </button>
        </figure>
        {said && <DryingStrip seen={said} ground={ground} upto={there} onUpto={setUpto} />}
        {said?.worn && (
          <p className="narrow text-sm">The strip stops before sanding and flaking; the picture does not.</p>
        )}
      </section>
      <section
        aria-label="Looks to choose from"
        className="bg-enamel p-4 max-md:border-t-2 max-md:border-ink"
      >
        <Tabs.Root value={tab} onValueChange={setTab}>
          <Tabs.List aria-label="About the look" className="mb-4 flex flex-wrap">
            <Tabs.Trigger value="move" className="side">
              Move
            </Tabs.Trigger>
            <Tabs.Trigger value="compare" className="side">
              Compare
            </Tabs.Trigger>
            <Tabs.Trigger value="match" className="side">
              Match a colour
            </Tabs.Trigger>
            <Tabs.Trigger value="board" className="side">
              Test board
            </Tabs.Trigger>
          </Tabs.List>
          <Tabs.Content value="move">
            <div className="sticky top-0 z-[4] mb-3 grid grid-cols-[7rem_1fr] gap-3 border-b-2 border-ink bg-enamel py-2 lg:hidden">
              <Chip address={chip.address} old={chip.old} says="" className="w-full" />
              <p className="narrow self-center first-letter:uppercase">{words}</p>
            </div>
            <Knobs
              open={open}
              catalogue={catalogue}
              zone={index}
              layer={layer}
              onLayer={onLayer}
              films={said?.column.films ?? []}
            />
          </Tabs.Content>
          <Tabs.Content value="compare">
            <Compare open={open} catalogue={catalogue} zone={index} />
          </Tabs.Content>
          <Tabs.Content value="board">
            <BoardPlanner open={open} catalogue={catalogue} zone={index} layer={layer} onLayer={onLayer} />
          </Tabs.Content>
          <Tabs.Content value="match">
            <Match open={open} catalogue={catalogue} zone={index} layer={layer} />
          </Tabs.Content>
        </Tabs.Root>
      </section>
    </>
  );
}
