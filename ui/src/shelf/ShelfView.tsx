import { useState } from "react";
import type { ShelfLine } from "../api/client";
import { useCatalogue, useShelf } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { FilePanel } from "../parts/FilePanel";
import { Loading } from "../parts/notices";
import { SearchField } from "../parts/SearchField";
import { say } from "../parts/say";
import { usePlace } from "../parts/usePlace";
import { Better } from "./Better";
import { MaterialPanel } from "./MaterialPanel";
import { OwnMaterial } from "./OwnMaterial";

/** What is on hand, and what is known about it better than the starting values. */
export function ShelfView() {
  usePlace("Shelf");
  const [search, setSearch] = useState("");
  const on = useShelf(true, search);
  const off = useShelf(false, search);
  const catalogue = useCatalogue();
  const [open, setOpen] = useState<string | null>(null);
  const error = on.error ?? off.error;
  if (error && !on.data) return <Failure error={error} onRetry={() => void on.refetch()} />;
  if (!on.data || !off.data) return <Loading>Looking along the shelf…</Loading>;
  const list = (lines: ShelfLine[]) => (
    <ul>
      {lines.map((line) => (
        <li key={line.material.slug} className="border-b border-line">
          <button
            type="button"
            aria-expanded={open === line.material.slug}
            className="grid min-h-11 w-full grid-cols-[auto_1fr_auto] items-center gap-3 py-2 text-left hover:underline sm:grid-cols-[auto_16rem_1fr_auto]"
            onClick={() => setOpen(open === line.material.slug ? null : line.material.slug)}
          >
            <span
              aria-hidden
              className="size-6 border-2 border-ink"
              style={{ background: line.material.hex }}
            />
            <span className="font-semibold first-letter:uppercase">{line.material.name}</span>
            <span className="narrow hidden text-sm text-soft sm:block">
              {line.values
                .filter((v) => v.source !== "starting value")
                .map((v) => `${v.name.toLowerCase()}: ${v.source}`)
                .join("; ") || "starting values"}
              {line.item.opened_on && `; opened ${line.item.opened_on}`}
            </span>
            <span className="numeral text-lg">
              {line.on_shelf ? (
                `${say(line.left_now)} ${line.item.unit}`
              ) : (
                <span className="narrow text-sm font-normal text-soft">not here</span>
              )}
            </span>
          </button>
          {open === line.material.slug && <MaterialPanel line={line} />}
        </li>
      ))}
    </ul>
  );
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <h1 className="wide text-xl font-bold">Shelf</h1>
      {on.count === 0 && on.lines.length === 0 && !search && (
        <p className="mt-2 max-w-prose text-lg">
          Nothing is on the shelf yet. Open a material to say how much you have, or weigh one level cup of it:
          from then on Lumso counts with yours.
        </p>
      )}
      <div className="mt-3">
        <SearchField label="Find a material by its name" onSearch={setSearch} />
      </div>
      {on.lines.length > 0 && (
        <section aria-label="On the shelf" className="mt-4">
          <h2 className="border-b-2 border-ink pb-1 text-base font-bold">On the shelf</h2>
          {list(on.lines)}
          <More of={on} />
        </section>
      )}
      {catalogue.data && <OwnMaterial materials={catalogue.data.materials} onAdded={setOpen} />}
      <section aria-label="Known, not on the shelf" className="mt-6">
        <h2 className="border-b-2 border-ink pb-1 text-base font-bold">Known, not on the shelf</h2>
        {list(off.lines)}
        <More of={off} />
      </section>
      <Better />
      <FilePanel what="shelf" says="The shelf, to keep, to pass on or to edit in a spreadsheet." />
    </div>
  );
}

function More({ of }: { of: ReturnType<typeof useShelf> }) {
  if (!of.hasNextPage) return null;
  return (
    <button
      type="button"
      className="press mt-2 w-full"
      disabled={of.isFetchingNextPage}
      onClick={() => void of.fetchNextPage()}
    >
      {of.lines.length} of {of.count} are shown. Show more
    </button>
  );
}
