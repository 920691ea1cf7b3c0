import { Dialog } from "radix-ui";
import { useState } from "react";
import type { Catalogue, Finish } from "../api/client";
import { useFinishLayers } from "../api/look";
import { useEfforts, useLibrary } from "../api/queries";
import type { OpenJob } from "../job/useJob";
import { newId, say } from "../parts/say";

interface LibraryProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  onDone: (says: string) => void;
}

/** The finish library: those for this ground and this use first, each with what it looks like and what it takes. */
export function Library({ open, catalogue, zone: index, onDone }: LibraryProps) {
  const [shown, setShown] = useState(false);
  const efforts = useEfforts(shown);
  const zone = open.job.zones[index];
  const shelved = useLibrary(open.job, zone?.id ?? "", shown);
  if (!zone) return null;
  const ground = catalogue.grounds.find((g) => g.slug === zone.ground);
  const uses = open.job.use.touched_by.filter((u) => u !== "an unknown buyer");
  const finishes = new Map(catalogue.finishes.map((f) => [f.slug, f]));
  const sorted = (shelved.data ?? []).flatMap((s) => {
    const finish = finishes.get(s.finish);
    return finish ? [{ finish, against: s.why }] : [];
  });

  async function put(finish: Finish) {
    if (!zone) return;
    setShown(false);
    const edit = { edit: "finish", seed: newId(), zone: zone.id, finish: finish.slug } as const;
    const taken = await open.decide("a finish put on", edit);
    if (!taken) return;
    const did = taken.map((m) => m.did).join("; ");
    onDone(did ? `For this ground and use: ${did.toLowerCase()}.` : "It needs nothing else on this ground.");
  }

  return (
    <Dialog.Root open={shown} onOpenChange={setShown}>
      <Dialog.Trigger className="press">Finish library</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-10 bg-ink/60" />
        <Dialog.Content className="fixed inset-x-3 top-6 bottom-6 z-20 mx-auto flex max-w-3xl flex-col border-2 border-ink bg-enamel">
          <div className="flex items-center justify-between gap-3 border-b-2 border-ink p-3">
            <div>
              <Dialog.Title className="text-lg font-bold">Finish library</Dialog.Title>
              <Dialog.Description className="narrow text-sm">
                For {zone.name.toLowerCase()}, on {ground?.name ?? zone.ground}
                {uses.length > 0 && `, to stand ${uses.join(", ")}`}. What is on it now is replaced; undo
                brings it back. Pictures are estimates: make a test board.
              </Dialog.Description>
            </div>
            <Dialog.Close className="press shrink-0">Close</Dialog.Close>
          </div>
          <ul className="overflow-auto">
            {sorted.map(({ finish, against }) => {
              const effort = efforts.data?.[finish.slug];
              return (
                <li key={finish.slug} className="border-b-2 border-ink">
                  <button
                    type="button"
                    className="grid w-full grid-cols-[8rem_1fr] gap-4 p-3 text-left hover:bg-steel"
                    onClick={() => void put(finish)}
                  >
                    <img
                      src={`/api/look/finishes/${finish.slug}?ground=${zone.ground}&relief=${zone.relief === "flat" ? finish.shown_on : zone.relief}`}
                      alt=""
                      loading="lazy"
                      className="aspect-square w-full border border-ink bg-steel"
                    />
                    <span>
                      <strong className="block">{finish.name}</strong>
                      <span className="block">{finish.looks}</span>
                      <span className="narrow block text-sm">
                        For {finish.hard}.{" "}
                        {effort &&
                          `About ${say(Math.round(effort.hours * 2) / 2)} h of work a m², ${effort.days} ${effort.days === 1 ? "day" : "days"} with its waits (an estimate).`}
                      </span>
                      {against && (
                        <span className="narrow block border-l-4 border-ink pl-2 text-sm">{against}</span>
                      )}
                      {finish.ugly && (
                        <span className="narrow block text-sm text-soft">Half-way: {finish.ugly}</span>
                      )}
                    </span>
                  </button>
                  <Grows finish={finish} ground={zone.ground} />
                </li>
              );
            })}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** How a finish grows on this ground: its picture after each layer, worked out when it is opened. */
function Grows({ finish, ground }: { finish: Finish; ground: string }) {
  const [open, setOpen] = useState(false);
  const layers = useFinishLayers(finish.slug, ground, open);
  return (
    <details className="px-3 pb-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="narrow inline-flex min-h-11 items-center text-sm underline">How it grows</summary>
      <ol className="flex flex-wrap gap-3">
        {layers.data?.map((name, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: layers keep their place
          <li key={i} className="w-28">
            <img
              src={`/api/look/finishes/${finish.slug}?ground=${ground}&relief=${finish.shown_on}&px=160&upto=${i + 1}`}
              alt={`After ${name.toLowerCase()}, an estimate`}
              className="aspect-square w-full border border-ink bg-steel"
            />
            <span className="narrow block text-sm">
              {i + 1}. {name}
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}
