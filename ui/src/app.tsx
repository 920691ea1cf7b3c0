import { Link, Route, Routes, useMatch } from "react-router";
import { JobView } from "./job/JobView";
import { JobsView } from "./jobs/JobsView";
import { QuickPot } from "./quick/QuickPot";

/** The frame of every screen: where one is, the way back, and the quick pot, always in the same place. */
export function App() {
  const home = useMatch("/") !== null;
  return (
    <>
      <a href="#main" className="press sr-only focus:not-sr-only focus:absolute focus:z-30">
        Skip to the work
      </a>
      <header className="flex min-h-14 items-stretch gap-1 bg-dark text-enamel">
        <Link
          to="/"
          className="flex min-w-11 items-center px-4 text-lg font-bold wide"
          aria-current={home ? "page" : undefined}
        >
          Lumso
        </Link>
        <nav aria-label="Places" className="flex grow items-stretch">
          <Link
            to="/"
            className={`flex min-w-11 items-center px-3 font-semibold ${home ? "border-b-4 border-enamel pt-1" : ""}`}
          >
            Jobs
          </Link>
        </nav>
        <QuickPot />
      </header>
      <main id="main">
        <Routes>
          <Route path="/" element={<JobsView />} />
          <Route path="/jobs/:id" element={<JobView />} />
          <Route path="*" element={<Lost />} />
        </Routes>
      </main>
    </>
  );
}

function Lost() {
  return (
    <div className="p-6">
      <h1 className="text-xl font-bold">There is nothing at this address</h1>
      <Link to="/" className="press mt-4 inline-block">
        To the jobs
      </Link>
    </div>
  );
}
