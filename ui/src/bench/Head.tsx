import { Link } from "react-router";
import type { BenchOp } from "../api/client";
import { Rule } from "./Order";
import { OVER } from "./states";

interface HeadProps {
  job: string;
  name: string;
  operations: BenchOp[];
  at: number;
  /** How much is kept here while the server is away. */
  kept: number;
  listed: boolean;
  onList: () => void;
  onLock: () => void;
}

/** The head of the bench: the way out, the order of work as a rule, the lock. */
export function Head({ job, name, operations, at, kept, listed, onList, onLock }: HeadProps) {
  const done = operations.filter((o) => OVER.has(o.state)).length;
  return (
    <header className="flex min-h-[74px] shrink-0 items-stretch border-b-2 border-ink bg-steel">
      <Link to={`/jobs/${job}/steps`} className="flex min-w-[72px] items-center px-4 font-semibold underline">
        Leave
      </Link>
      <button
        type="button"
        className="flex min-w-0 grow flex-col justify-center px-3 text-left"
        aria-expanded={listed}
        onClick={onList}
      >
        <span className="narrow truncate text-sm">
          {name}: {done} of {operations.length} done
          {kept > 0 && `. ${kept} kept here`}
        </span>
        <Rule operations={operations} at={at} />
      </button>
      <button
        type="button"
        className="press min-h-[72px] shrink-0 border-y-0 px-4"
        aria-label="Lock to wipe"
        onClick={onLock}
      >
        Lock<span className="max-sm:hidden"> to wipe</span>
      </button>
    </header>
  );
}

/** What will fail or can hurt somebody, as the job is planned. */
export function Against({ says }: { says: string }) {
  if (!says) return null;
  return (
    <p role="note" className="said narrow mx-4 mt-2 shrink-0 font-semibold md:mx-6">
      As it is planned: {says}
    </p>
  );
}
