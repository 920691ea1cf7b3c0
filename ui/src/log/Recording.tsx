import { useState } from "react";
import { useDeleteRecording } from "../api/changes";
import { useKind } from "../api/workshop";
import { Failure } from "../parts/Failure";

/** A recorded note: played, or deleted for good by whoever keeps the workshop. What was written beside it stays. */
export function Recording({ name }: { name: string }) {
  const keeps = useKind() === "keeps";
  const [gone, setGone] = useState(false);
  const [sure, setSure] = useState(false);
  const remove = useDeleteRecording();
  if (gone)
    return (
      <span role="status" className="narrow block text-sm text-soft">
        The recording was deleted.
      </span>
    );
  return (
    <span className="mt-1 flex flex-wrap items-center gap-2">
      {/* biome-ignore lint/a11y/useMediaCaption: it is the painter’s own voice */}
      <audio
        controls
        src={`/api/recordings/${name}`}
        className="h-11 min-w-56 grow"
        onError={() => setGone(true)}
      />
      {keeps && (
        <button
          type="button"
          className="press text-sm"
          onClick={() => {
            if (!sure) return setSure(true);
            remove.mutate(name, { onSuccess: () => setGone(true) });
          }}
        >
          {sure ? "Yes, delete the recording for good" : "Delete the recording"}
        </button>
      )}
      {remove.error && <Failure error={remove.error} />}
    </span>
  );
}
