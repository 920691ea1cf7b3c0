import { Component, type ReactNode } from "react";

/** When a screen breaks, its place says so in words and offers a way on; what was saved is safe. */
export class Mishap extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <div role="alert" className="m-4 border-2 border-ink bg-enamel p-4">
        <p className="font-semibold">
          Lumso made a mistake of its own on this screen. What was saved is safe.
        </p>
        <button type="button" className="press mt-3" onClick={() => window.location.reload()}>
          Load it again
        </button>
      </div>
    );
  }
}
