import { type ComponentType, useCallback, useEffect, useState } from "react";
import { Loading } from "./notices";

/** A view whose script is fetched when it is opened, or ahead of that. */
export class LaterView<P extends object> {
  loaded: ComponentType<P> | null = null;

  constructor(private readonly load: () => Promise<ComponentType<P>>) {}

  fetch = async (): Promise<void> => {
    this.loaded ??= await this.load();
  };

  /** Fetch it now, so that it is there when the server is not. */
  ahead = (): void => void this.fetch().catch(() => undefined);
}

/** A view that is loaded later. Where that fails it says so, and can be tried again. */
export function Later<P extends object>({ view, given }: { view: LaterView<P>; given: P }) {
  const [failed, setFailed] = useState(false);
  const [, setCount] = useState(0);
  const fetchIt = useCallback(() => {
    setFailed(false);
    view.fetch().then(
      () => setCount((n) => n + 1),
      () => setFailed(true),
    );
  }, [view]);
  useEffect(() => {
    // It may have come ahead between being drawn and now: then nothing else would draw it.
    if (view.loaded) setCount((n) => n || 1);
    else fetchIt();
  }, [view, fetchIt]);
  if (view.loaded) return <view.loaded {...given} />;
  if (!failed) return <Loading>Opening…</Loading>;
  return (
    <div role="alert" className="m-4 border-2 border-ink bg-enamel p-4">
      <p className="font-semibold">This part of Lumso could not be loaded: it is not answering.</p>
      <button type="button" className="press mt-3" onClick={fetchIt}>
        Try again
      </button>
    </div>
  );
}
