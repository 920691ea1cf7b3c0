import { Tabs } from "radix-ui";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Change, Zone } from "../api/client";
import { useChip, useSeen } from "../api/look";
import { recipeOptions } from "../book/options";
import { Chip, RecipeChip } from "../drawings/Chip";
import { Range } from "../drawings/DryingStrip";
import { stackEdit } from "../job/edits";
import type { OpenJob } from "../job/useJob";
import { LayoutPanel } from "../layout/LayoutPanel";
import { ChooserField } from "../parts/ChooserField";
import { intoView } from "../parts/intoView";
import { Fault, LABEL } from "../parts/notices";
import { useAddress } from "../parts/useAddress";
import { AdvicePanel } from "./AdvicePanel";
import { countOpen, Findings } from "./Findings";
import { LayerPanel } from "./LayerPanel";
import { Library } from "./Library";
import { Stack } from "./Stack";

interface FinishSideProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}

/** The finish of a zone: the stack as a core sample, the layer that is picked, what goes wrong, what to ask. */
export function FinishSide({ open, catalogue, zone: index, layer, onLayer }: FinishSideProps) {
  const [tab, setTab] = useAddress("tab", "layer");
  const [boundary, setBoundary] = useState<string | null>(null);
  const [says, setSays] = useState("");
  const zone = open.job.zones[index];
  const planned = open.plan.zones.find((z) => z.zone === zone?.id);
  if (!zone) return null;
  const counts = countOpen(planned?.findings ?? []);
  const open_ones = counts["will fail"] + counts.risky;
  const finish = catalogue.finishes.find((f) => f.slug === zone.finish);
  const problems = open.plan.problems.filter((p) => p.at.startsWith(`/zones/${index}/layers`));

  return (
    <>
      <section aria-label="The stack" className="flex flex-col gap-3 border-ink p-4 md:border-r-2">
        <div className="flex flex-wrap items-baseline justify-between gap-x-3">
          <h2 className="wide text-base font-bold">{zone.name}</h2>
          <Library open={open} catalogue={catalogue} zone={index} onDone={setSays} />
        </div>
        <Seen open={open} zone={zone}>
          {finish && `Began as ${finish.name.toLowerCase()}. ${finish.looks}`}
        </Seen>
        {says && (
          <p role="status" className="narrow border-l-4 border-ink pl-2 text-sm">
            {says}
          </p>
        )}
        <button
          type="button"
          data-said
          className="press flex flex-wrap justify-center gap-x-4 text-left"
          onClick={() => {
            setTab("findings");
            intoView("layer");
          }}
          aria-live="polite"
        >
          {counts["can hurt"] > 0 && <span>! {counts["can hurt"]} can hurt somebody</span>}
          {open_ones === 0 ? (
            <span>
              Nothing here will fail
              {counts["good to know"] > 0 && `, ${counts["good to know"]} good to know`}
            </span>
          ) : (
            <>
              {counts["will fail"] > 0 && <span>▼ {counts["will fail"]} will fail</span>}
              {counts.risky > 0 && <span>▽ {counts.risky} risky</span>}
              {counts["good to know"] > 0 && (
                <span className="font-normal">{counts["good to know"]} good to know</span>
              )}
            </>
          )}
        </button>
        <Stack
          open={open}
          catalogue={catalogue}
          zone={index}
          layer={layer}
          onLayer={(i) => {
            onLayer(i);
            setTab("layer");
            intoView("layer");
          }}
          onBoundary={(above) => {
            setBoundary(above);
            setTab("findings");
            intoView("layer");
          }}
        />
        <AddLayer open={open} catalogue={catalogue} zone={index} onAdded={onLayer} />
        <Prep open={open} catalogue={catalogue} zone={index} />
      </section>
      <section
        id="layer"
        aria-label="The layer"
        className="bg-enamel p-4 max-md:border-t-2 max-md:border-ink"
      >
        <Tabs.Root value={tab} onValueChange={setTab}>
          <Tabs.List aria-label="About the stack" className="mb-4 flex flex-wrap">
            <Tabs.Trigger value="layer" className="side">
              Layer
            </Tabs.Trigger>
            <Tabs.Trigger value="layout" className="side">
              Where it goes
            </Tabs.Trigger>
            <Tabs.Trigger value="findings" className="side">
              What goes wrong ({open_ones + counts["good to know"]})
            </Tabs.Trigger>
            <Tabs.Trigger value="advice" className="side">
              Ask
            </Tabs.Trigger>
          </Tabs.List>
          <Tabs.Content value="layer">
            <LayerPanel open={open} catalogue={catalogue} zone={index} layer={layer} onLayer={onLayer} />
            {problems.map((p) => (
              <Fault key={p.at + p.says} says={p.says} allowed={p.allowed} />
            ))}
          </Tabs.Content>
          <Tabs.Content value="layout">
            <LayoutPanel open={open} catalogue={catalogue} zone={index} layer={layer} />
          </Tabs.Content>
          <Tabs.Content value="findings">
            <Findings open={open} zone={index} boundary={boundary} />
          </Tabs.Content>
          <Tabs.Content value="advice">
            <AdvicePanel open={open} zone={index} />
          </Tabs.Content>
        </Tabs.Root>
      </section>
    </>
  );
}

/** What it will look like, small; the rest is on the side of the look. */
function Seen({ open, zone, children }: { open: OpenJob; zone: Zone; children: ReactNode }) {
  const chip = useChip({ job: open.job, zone: zone.id }, 160);
  const seen = useSeen(open.job, zone.id);
  if (zone.layers.length === 0) return null;
  const words = seen.data?.afar_words ?? "";
  return (
    <Link to={`/jobs/${open.id}/look`} className="-mt-1 grid grid-cols-[6.5rem_1fr] gap-3">
      <Chip address={chip.address} old={chip.old} says={`${words}, an estimate`} className="w-full" />
      <span className="narrow text-sm">
        {/* Room for the words before they are there: what stands below is not moved from under a finger. */}
        <strong className="block min-h-[1lh] text-base first-letter:uppercase">{words}</strong>
        <span className="block min-h-[2lh]">
          {seen.data && <Range shade={seen.data.column.top} />} (an estimate).{" "}
          <span className="underline">How it will look</span>
        </span>
        <span className="block text-soft">{children}</span>
      </span>
    </Link>
  );
}

function AddLayer(props: {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  onAdded: (index: number) => void;
}) {
  const { open, catalogue, zone: index, onAdded } = props;
  const zone = open.job.zones[index];
  const count = zone?.layers.length ?? 0;
  if (count >= catalogue.caps.layers) return null;
  const add = (recipe: string) => {
    if (!zone) return;
    const put = { do: "insert", above: "", recipe, technique: "", wait_h: null } as const;
    void open.decide("a layer added", stackEdit(zone.id, [put]));
    onAdded(count);
  };
  return (
    <div>
      <ChooserField
        label="Another layer, on top"
        of="recipe"
        value=""
        empty="choose a mix"
        options={recipeOptions(catalogue)}
        picture={(o) => <RecipeChip recipe={o.slug} />}
        onChoose={add}
      />
    </div>
  );
}

/** What is done to the ground first, in order. */
function Prep({ open, catalogue, zone: index }: { open: OpenJob; catalogue: Catalogue; zone: number }) {
  const zone = open.job.zones[index];
  if (!zone) return null;
  const missing = catalogue.preparations.filter((p) => !zone.prep.includes(p.slug));
  const change = (label: string, what: Change) => void open.decide(label, stackEdit(zone.id, [what]));
  return (
    <div className="border-t-2 border-ink pt-2">
      <h3 className={LABEL}>Prepare</h3>
      <ol>
        {zone.prep.map((slug, i) => {
          const known = catalogue.preparations.find((p) => p.slug === slug);
          return (
            <li key={slug} className="flex items-center justify-between gap-2 border-b border-line">
              <span>
                {i + 1}. {known?.name ?? slug}
              </span>
              <button
                type="button"
                className="min-h-11 px-2 text-sm underline print:hidden"
                aria-label={`Leave out: ${known?.name ?? slug}`}
                onClick={() => change("a preparation left out", { do: "drop prep", prep: slug })}
              >
                leave out
              </button>
            </li>
          );
        })}
      </ol>
      <div className="mt-2">
        <ChooserField
          label="Add to it"
          of="prep"
          value=""
          empty="choose…"
          options={missing}
          onChoose={(prep) => change("a preparation added", { do: "prep", prep })}
        />
      </div>
    </div>
  );
}
