import { useEffect } from "react";
import { Link, NavLink, Route, Routes, useLocation, useMatch } from "react-router";
import { useKind, useTrouble } from "./api/workshop";
import { aboutOf } from "./help/about";
import { Shortcuts } from "./help/Shortcuts";
import { useAway } from "./keep/away";
import { useWaiting } from "./keep/hooks";
import { keepFocus } from "./parts/focus";
import { Later, LaterView } from "./parts/later";
import { Mishap } from "./parts/Mishap";
import { openOnPaper } from "./parts/paper";
import { useListening, useQuiet } from "./parts/quiet";
import { when } from "./parts/say";
import { useLong } from "./parts/useLong";
import { QuickPot } from "./quick/QuickPot";
import { TodayView } from "./today/TodayView";

const JobView = new LaterView(() => import("./job/JobView").then((m) => m.JobView));
const BatchView = new LaterView(() => import("./sheet/BatchView").then((m) => m.BatchView));
const BookView = new LaterView(() => import("./book/BookView").then((m) => m.BookView));
const CompareView = new LaterView(() => import("./book/CompareView").then((m) => m.CompareView));
const RecipeView = new LaterView(() => import("./book/RecipeView").then((m) => m.RecipeView));
const ChangeView = new LaterView(() => import("./book/ChangeView").then((m) => m.ChangeView));
const ShelfView = new LaterView(() => import("./shelf/ShelfView").then((m) => m.ShelfView));
const KeptView = new LaterView(() => import("./kept/KeptView").then((m) => m.KeptView));
const DaysView = new LaterView(() => import("./days/DaysView").then((m) => m.DaysView));
const BenchView = new LaterView(() => import("./bench/BenchView").then((m) => m.BenchView));
const LogView = new LaterView(() => import("./log/LogView").then((m) => m.LogView));
const PotView = new LaterView(() => import("./log/PotView").then((m) => m.PotView));
const AskView = new LaterView(() => import("./ask/AskView").then((m) => m.AskView));
const LeftView = new LaterView(() => import("./ask/LeftView").then((m) => m.LeftView));
const HelpView = new LaterView(() => import("./help/HelpView").then((m) => m.HelpView));
const NewJobView = new LaterView(() => import("./jobs/NewJobView").then((m) => m.NewJobView));
const BuyingView = new LaterView(() => import("./buying/BuyingView").then((m) => m.BuyingView));
const RehearseView = new LaterView(() => import("./rehearse/RehearseView").then((m) => m.RehearseView));
const KitView = new LaterView(() => import("./kit/KitView").then((m) => m.KitView));

const VIEWS = [
  JobView,
  NewJobView,
  HelpView,
  AskView,
  LeftView,
  BenchView,
  DaysView,
  LogView,
  PotView,
  BatchView,
  BookView,
  CompareView,
  RecipeView,
  ChangeView,
  ShelfView,
  BuyingView,
  KitView,
  KeptView,
  RehearseView,
];

const PLACES = [
  ["/", "Today"],
  ["/days", "Days"],
  ["/book", "Recipes"],
  ["/shelf", "Shelf"],
  ["/buying", "Buy"],
  ["/kit", "Kit"],
  ["/log", "Log"],
] as const;

/** The frame of every screen: where one is, the way back, and the quick pot, always in the same place. */
export function App() {
  useListening();
  const quiet = useQuiet();
  useEffect(() => {
    // Fetched once there is time, so that every place opens when the server is away.
    if (quiet) for (const view of VIEWS) view.ahead();
  }, [quiet]);
  useEffect(keepFocus, []);
  useEffect(openOnPaper, []);
  const help = aboutOf(useLocation().pathname);
  if (useMatch("/jobs/:id/bench"))
    return (
      <Mishap>
        <Routes>
          <Route path="/jobs/:id/bench" element={<Later view={BenchView} given={{}} />} />
        </Routes>
      </Mishap>
    );
  return (
    <>
      <a href="#main" className="press sr-only focus:not-sr-only focus:absolute focus:z-30">
        Skip to the work
      </a>
      <header className="flex min-h-14 items-stretch gap-1 bg-bar text-on-bar">
        <Link to="/" className="flex min-w-11 items-center px-4 text-lg font-bold wide max-sm:hidden">
          Lumso
        </Link>
        <nav aria-label="Places" className="flex min-w-0 grow flex-wrap items-stretch">
          {PLACES.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              end={to === "/"}
              className={({ isActive }) =>
                `narrow flex min-h-11 min-w-10 items-center justify-center px-1 font-semibold sm:min-w-11 sm:px-3 ${isActive ? "border-b-4 border-on-bar pt-1" : ""}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <div className="hidden sm:flex">
          <NotSaved />
        </div>
        <NavLink
          to={help}
          aria-label="Help with this"
          className="flex min-w-11 items-center justify-center text-lg font-bold max-sm:hidden"
        >
          ?
        </NavLink>
        <QuickPot />
      </header>
      {/* On a phone the places and the quick pot take all of the bar. */}
      <div className="bg-bar text-on-bar sm:hidden">
        <NotSaved />
      </div>
      <Away />
      <Trouble />
      <LooksOnly />
      <main id="main">
        <Mishap>
          <Routes>
            <Route path="/" element={<TodayView />} />
            <Route path="/days" element={<Later view={DaysView} given={{}} />} />
            <Route path="/new" element={<Later view={NewJobView} given={{}} />} />
            <Route path="/help" element={<Later view={HelpView} given={{}} />} />
            <Route path="/ask" element={<Later view={AskView} given={{}} />} />
            <Route path="/left" element={<Later view={LeftView} given={{}} />} />
            <Route path="/jobs/:id/rehearse" element={<Later view={RehearseView} given={{}} />} />
            <Route path="/jobs/:id/:side?" element={<Later view={JobView} given={{}} />} />
            <Route path="/b/:code" element={<Later view={BatchView} given={{}} />} />
            <Route path="/book" element={<Later view={BookView} given={{}} />} />
            <Route path="/book/compare" element={<Later view={CompareView} given={{}} />} />
            <Route path="/book/:slug" element={<Later view={RecipeView} given={{}} />} />
            <Route path="/book/:slug/change" element={<Later view={ChangeView} given={{}} />} />
            <Route path="/log/:part?" element={<Later view={LogView} given={{}} />} />
            <Route path="/log/pots/:pot" element={<Later view={PotView} given={{}} />} />
            <Route path="/buying" element={<Later view={BuyingView} given={{}} />} />
            <Route path="/shelf" element={<Later view={ShelfView} given={{}} />} />
            <Route path="/kept" element={<Later view={KeptView} given={{}} />} />
            <Route path="/kit" element={<Later view={KitView} given={{}} />} />
            <Route path="*" element={<Lost />} />
          </Routes>
        </Mishap>
      </main>
      <footer className="flex flex-wrap gap-x-6 border-t border-line px-4 py-2 text-sm">
        <Link to={help} className="inline-flex min-h-11 items-center underline">
          Help, words and keys
        </Link>
        <Link to="/kept" className="inline-flex min-h-11 items-center underline">
          Backups and deleted jobs, and what waits to be saved
        </Link>
      </footer>
      <Shortcuts />
    </>
  );
}

const AFTER_MS = 1500;

/** What is shown is a copy of what the server last said. */
function Away() {
  const since = useAway();
  return (
    <div role="status">
      {since && (
        <p className="said m-2 font-semibold">
          Lumso is not answering. You see what it said on {when(since)}; what you enter is kept here until it
          answers.
        </p>
      )}
    </div>
  );
}

/** What whoever uses the workshop has to know, wherever they are: a full disk, a start after a power cut. */
function Trouble() {
  const trouble = useTrouble();
  return <div role="status">{trouble && <p className="said m-2 font-semibold">{trouble}</p>}</div>;
}

/** A device that looks is told so before it enters anything. */
function LooksOnly() {
  if (useKind() !== "looks") return null;
  return (
    <p className="said m-2">
      This device looks only: what is entered here is not saved. Whoever keeps the workshop lets it work,
      under “Backups and deleted jobs” at the foot of the page.
    </p>
  );
}

/** What waits to be saved, when it does so for longer than saving takes, or was refused. */
function NotSaved() {
  const { count, refused } = useWaiting();
  const long = useLong(count > 0, AFTER_MS);
  return (
    <div role="status" className="flex">
      {count > 0 && (long || refused > 0) && (
        <Link
          to="/kept"
          className="narrow flex min-h-11 min-w-11 items-center px-4 text-sm font-semibold underline sm:px-2"
        >
          {refused > 0 ? `${refused} refused` : `${count} kept here`}
        </Link>
      )}
    </div>
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
