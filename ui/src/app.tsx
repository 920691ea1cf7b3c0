import { Link, NavLink, Route, Routes } from "react-router";
import { BookView } from "./book/BookView";
import { ChangeView } from "./book/ChangeView";
import { CompareView } from "./book/CompareView";
import { RecipeView } from "./book/RecipeView";
import { JobView } from "./job/JobView";
import { JobsView } from "./jobs/JobsView";
import { KitView } from "./kit/KitView";
import { Mishap } from "./parts/Mishap";
import { QuickPot } from "./quick/QuickPot";
import { BatchView } from "./sheet/BatchView";
import { ShelfView } from "./shelf/ShelfView";

const PLACES = [
  ["/", "Jobs"],
  ["/book", "Recipe book"],
  ["/shelf", "Shelf"],
  ["/kit", "Kit"],
] as const;

/** The frame of every screen: where one is, the way back, and the quick pot, always in the same place. */
export function App() {
  return (
    <>
      <a href="#main" className="press sr-only focus:not-sr-only focus:absolute focus:z-30">
        Skip to the work
      </a>
      <header className="flex min-h-14 items-stretch gap-1 bg-dark text-enamel">
        <Link to="/" className="flex min-w-11 items-center px-4 text-lg font-bold wide">
          Lumso
        </Link>
        <nav aria-label="Places" className="flex grow items-stretch">
          {PLACES.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              end={to === "/"}
              className={({ isActive }) =>
                `narrow flex min-w-11 items-center px-2 font-semibold sm:px-3 ${isActive ? "border-b-4 border-enamel pt-1" : ""}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <QuickPot />
      </header>
      <main id="main">
        <Mishap>
          <Routes>
            <Route path="/" element={<JobsView />} />
            <Route path="/jobs/:id/:side?" element={<JobView />} />
            <Route path="/b/:code" element={<BatchView />} />
            <Route path="/book" element={<BookView />} />
            <Route path="/book/compare" element={<CompareView />} />
            <Route path="/book/:slug" element={<RecipeView />} />
            <Route path="/book/:slug/change" element={<ChangeView />} />
            <Route path="/shelf" element={<ShelfView />} />
            <Route path="/kit" element={<KitView />} />
            <Route path="*" element={<Lost />} />
          </Routes>
        </Mishap>
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
