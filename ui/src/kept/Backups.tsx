import { useRef, useState } from "react";
import { useKeepCopy, useMakeBackup, useRestore, useRestoreCopy } from "../api/changes";
import type { CopyLine, Restored } from "../api/client";
import { useBackups } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { LABEL, Row } from "../parts/notices";
import { day, when } from "../parts/say";

const size = (bytes: number) =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} kB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
const jobs = (n: number) => (n === 1 ? "one job" : `${n} jobs`);

/** The whole workshop in a file: made daily by itself, or now; the way back keeps what was there. */
export function Backups() {
  const backups = useBackups();
  const make = useMakeBackup();
  const restore = useRestore();
  const input = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState<{ from: string | File; says: string } | null>(null);
  const list = backups.data?.backups ?? [];

  function goBack() {
    if (!chosen) return;
    restore.mutate(chosen.from, { onSettled: () => setChosen(null) });
  }

  return (
    <section aria-labelledby="backups" className="mt-6 border-t-2 border-ink pt-3">
      <h2 id="backups" className="text-lg font-bold">
        Backups
      </h2>
      <p className="narrow text-sm text-soft">
        One is made every day while Lumso runs, and opened again to see that it is whole. They lie beside the
        workshop: keep one elsewhere too, for a disk can fail.
      </p>
      <div className="mt-2">
        <Row>
          <button
            type="button"
            className="press press-strong"
            disabled={make.isPending}
            onClick={() => make.mutate(undefined)}
          >
            {make.isPending ? "Making it…" : "Back up now"}
          </button>
          <button type="button" className="press" onClick={() => input.current?.click()}>
            Restore from a file
          </button>
          <a className="press inline-flex items-center" href="/api/export/everything.json" download>
            Everything as open JSON
          </a>
          <a
            className="press inline-flex items-center"
            href="/api/export/everything.json?revisions=true"
            download
          >
            With every version
          </a>
        </Row>
        <input
          ref={input}
          type="file"
          accept=".zip,.sqlite3"
          className="hidden"
          aria-label="Backup to go back to"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) setChosen({ from: file, says: file.name });
            e.target.value = "";
          }}
        />
      </div>
      {chosen && (
        <div
          role="alertdialog"
          aria-labelledby="goes-back"
          className="mt-3 border-2 border-ink bg-enamel p-3"
        >
          <p id="goes-back" className="font-semibold">
            The whole workshop goes back to {chosen.says}. What is here now is kept beside it, under a name of
            its own.
          </p>
          <div className="mt-2">
            <Row>
              <button
                type="button"
                className="press press-strong"
                disabled={restore.isPending}
                onClick={goBack}
              >
                {restore.isPending ? "Going back…" : "Go back to it"}
              </button>
              <button type="button" className="press" onClick={() => setChosen(null)}>
                Stay as it is
              </button>
            </Row>
          </div>
        </div>
      )}
      <div role="status">{restore.data && <Back restored={restore.data} />}</div>
      {(restore.error ?? make.error ?? backups.error) && (
        <Failure error={(restore.error ?? make.error ?? backups.error) as Error} />
      )}
      <ul className="mt-3">
        {list.map((backup) => {
          if (backup.says)
            return (
              <li key={backup.name} className="flex flex-wrap items-center gap-3 border-t border-line py-2">
                <span className="min-w-0 grow basis-56">
                  <span className="font-semibold break-all">{backup.name}</span>
                  <span className="narrow block text-sm break-all">
                    It cannot be read, and is kept as it is ({size(backup.bytes)}).
                  </span>
                </span>
                <a
                  className="press inline-flex items-center"
                  aria-label={`Save ${backup.name} as a file`}
                  href={`/api/backups/${encodeURIComponent(backup.name)}`}
                  download
                >
                  As a file
                </a>
              </li>
            );
          const name = `${when(backup.made_at)}, ${jobs(backup.jobs)}`;
          return (
            <li key={backup.name} className="flex flex-wrap items-center gap-3 border-t border-line py-2">
              <span className="min-w-0 grow basis-56">
                <span className="font-semibold">{when(backup.made_at)}</span>
                <span className="narrow block text-sm text-soft">
                  {jobs(backup.jobs)}, {size(backup.bytes)}
                </span>
              </span>
              <Row>
                <button
                  type="button"
                  className="press"
                  aria-label={`Go back to the backup of ${name}`}
                  onClick={() => setChosen({ from: backup.name, says: `the backup of ${name}` })}
                >
                  Go back to it
                </button>
                <a
                  className="press inline-flex items-center"
                  aria-label={`Save the backup of ${name} as a file`}
                  href={`/api/backups/${encodeURIComponent(backup.name)}`}
                  download
                >
                  As a file
                </a>
              </Row>
            </li>
          );
        })}
      </ul>
      <Copies copies={backups.data?.copies ?? []} />
      {backups.data && (
        <p className="narrow mt-2 text-sm break-all text-soft">
          The workshop is {backups.data.data}; the backups are in {backups.data.folder}.
        </p>
      )}
    </section>
  );
}

/** The workshop as it was before each restore. */
function Copies({ copies }: { copies: CopyLine[] }) {
  const [chosen, setChosen] = useState("");
  const keep = useKeepCopy();
  const restore = useRestoreCopy();
  if (!copies.length) return null;
  return (
    <div className="mt-4">
      <h3 className={LABEL}>What was here before a restore</h3>
      <ul>
        {copies.map((copy) => {
          const name = `the workshop of ${when(copy.made_at)}`;
          return (
            <li key={copy.name} className="flex flex-wrap items-center gap-3 border-t border-line py-2">
              <span className="min-w-0 grow basis-56">
                <span className="font-semibold">As it was on {when(copy.made_at)}</span>
                <span className="narrow block text-sm break-all text-soft">
                  {copy.name}, {size(copy.bytes)}
                </span>
                <span className={copy.soon ? "block font-semibold" : "narrow block text-sm"}>
                  {copy.kept
                    ? "Stays."
                    : copy.goes_on
                      ? `Goes on ${day(copy.goes_on)}.`
                      : "The last one: it stays."}
                </span>
              </span>
              <Row>
                <button
                  type="button"
                  className="press"
                  aria-pressed={copy.kept}
                  aria-label={`Keep ${name}`}
                  onClick={() => keep.mutate({ name: copy.name, kept: !copy.kept })}
                >
                  Keep
                </button>
                <button
                  type="button"
                  className="press"
                  aria-label={chosen === copy.name ? `Yes, go back to ${name}` : `Go back to ${name}`}
                  onClick={() => {
                    if (chosen !== copy.name) return setChosen(copy.name);
                    restore.mutate(copy.name, { onSettled: () => setChosen("") });
                  }}
                >
                  {chosen === copy.name ? "Yes, the whole workshop" : "Go back to it"}
                </button>
              </Row>
            </li>
          );
        })}
      </ul>
      <div role="status">{restore.data && <Back restored={restore.data} />}</div>
      {(keep.error ?? restore.error) && <Failure error={(keep.error ?? restore.error) as Error} />}
    </div>
  );
}

function Back({ restored }: { restored: Restored }) {
  return (
    <p className="mt-3 border-l-4 border-ink pl-2">
      The workshop is as it was in the backup, with {jobs(restored.jobs)}.{" "}
      {restored.before && <>What was here before is kept as {restored.before}.</>}
    </p>
  );
}
