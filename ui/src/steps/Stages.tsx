import { useEffect, useRef, useState } from "react";
import type { Job, Operation } from "../api/client";
import { type Stage, stageAddress, useChip } from "../api/look";
import { useCatalogue } from "../api/workshop";
import { Chip } from "../drawings/Chip";

type Hand = NonNullable<Stage["hand"]>;

export interface StagesProps {
  operation: Operation;
  /** The job as it stands here, or the id of the one that is kept. */
  job: Job | string;
}

/** What the surface looks like once an operation is done: small, and at a press beside what is not yet right and what
 * went too far, or beside how it looks wet. */
export function Stages({ operation: o, job }: StagesProps) {
  const [open, setOpen] = useState(false);
  const judged = useCatalogue().data?.hands.find((h) => h.slug === o.judged);
  const picture = (says: string, hand: Hand = "", wet = false) => (
    <Pictured operation={o} job={job} hand={hand} wet={wet} says={says} />
  );
  return (
    <div className="mt-2">
      <button
        type="button"
        aria-expanded={open}
        className="press flex min-h-11 items-center gap-3 p-0 pr-3 text-left"
        onClick={() => setOpen(!open)}
      >
        <span aria-hidden className="block size-16">
          {picture("")}
        </span>
        <span className="narrow text-sm">
          What it looks like{judged ? `: ${judged.name}, not yet, right, too far` : ", wet and dry"}
        </span>
      </button>
      {open && (
        <div className={`mt-2 grid gap-3 ${judged ? "grid-cols-3" : "max-w-md grid-cols-2"}`}>
          {judged ? (
            <>
              <Seen name="Not yet" says={judged.soon_says} does={judged.soon_does}>
                {picture(`Not yet: ${judged.soon_says}`, "not yet")}
              </Seen>
              <Seen name="Right" says={o.check} does="">
                {picture(`Right: ${o.check}`)}
              </Seen>
              <Seen name="Too far" says={judged.far_says} does={judged.far_does}>
                {picture(`Too far: ${judged.far_says}`, "too far")}
              </Seen>
            </>
          ) : (
            <>
              <Seen name="Wet" says="" does="">
                {picture("Wet, just laid", "", true)}
              </Seen>
              <Seen name="Dry" says={o.check} does="">
                {picture("Dry")}
              </Seen>
            </>
          )}
          <p className="narrow text-sm text-soft col-span-full">
            Estimates, in this job's own colours. A test board tells.
          </p>
        </div>
      )}
    </div>
  );
}

interface SeenProps {
  name: string;
  says: string;
  does: string;
  children: React.ReactNode;
}

function Seen({ name, says, does, children }: SeenProps) {
  return (
    <figure className="min-w-0">
      {children}
      <figcaption className="mt-1 text-sm">
        <strong className="block">{name}</strong>
        {says}
        {does && <span className="mt-1 block border-l-4 border-ink pl-2">{does}</span>}
      </figcaption>
    </figure>
  );
}

interface PicturedProps extends StagesProps {
  hand: Hand;
  wet: boolean;
  says: string;
}

function Pictured({ operation: o, job, hand, wet, says }: PicturedProps) {
  const stage = { layer: o.layer, coats: o.coat, sandings: o.sanded, hand, wet };
  if (typeof job !== "string") return <Live job={job} zone={o.zone} stage={stage} says={says} />;
  const px = says ? 320 : 160;
  return (
    <img
      src={stageAddress(job, o.zone, stage, px)}
      alt={says && `${says} An estimate.`}
      loading="lazy"
      className="aspect-square w-full border border-ink object-cover"
    />
  );
}

/** Drawn from the job as it stands, once it comes into view. */
function Live({ job, zone, stage, says }: { job: Job; zone: string; stage: Stage; says: string }) {
  const [near, setNear] = useState(false);
  const spot = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!spot.current) return;
    const watch = new IntersectionObserver(([seen]) => seen?.isIntersecting && setNear(true));
    watch.observe(spot.current);
    return () => watch.disconnect();
  }, []);
  const chip = useChip({ job, zone: near ? zone : "", stage }, says ? 320 : 160);
  return (
    <div ref={spot} className="aspect-square">
      <Chip address={chip.address} old={chip.old} says={says && `${says} An estimate.`} className="w-full" />
    </div>
  );
}
