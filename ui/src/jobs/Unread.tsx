import { useDeleteUnread } from "../api/changes";
import type { Unread as Kept } from "../api/client";
import { useUnread } from "../api/workshop";
import { download } from "../parts/download";
import { Failure } from "../parts/Failure";
import { Alert } from "../parts/notices";

const KINDS: Record<Kept["kind"], string> = {
  kit: "kit",
  recipe: "recipe",
  lot: "Bought",
  shelf: "shelf entry",
  setting: "setting",
};

/** What is kept in the workshop and cannot be read: named, to be kept as a file, and taken out by choice. */
export function Unread() {
  const unread = useUnread();
  const take = useDeleteUnread();
  if (!unread.data?.length) return null;
  return (
    <section aria-label="Cannot be read" className="mb-6 grid gap-3">
      {unread.data.map((kept) => {
        const name = `${KINDS[kept.kind]} ${kept.slug}`;
        const file = () =>
          download(new Blob([kept.document], { type: "application/json" }), `${kept.kind}-${kept.slug}.json`);
        return (
          <Alert key={name}>
            <p>The {name} cannot be read. It is kept as it is, and all else goes on without it.</p>
            <p className="text-sm font-normal break-words">{kept.says}</p>
            <div className="mt-2 flex flex-wrap gap-2">
              <button type="button" className="press" onClick={file} aria-label={`Keep ${name} as a file`}>
                Keep it as a file
              </button>
              <button
                type="button"
                className="press"
                onClick={() => take.mutate(kept)}
                aria-label={`Take ${name} out`}
              >
                Take it out
              </button>
            </div>
          </Alert>
        );
      })}
      {take.error && <Failure error={take.error} />}
    </section>
  );
}
