import { useEffect, useState } from "react";
import { Link, NavLink, useNavigate, useParams } from "react-router";
import { useLog } from "../api/log";
import { Failure } from "../parts/Failure";
import { LABEL, Loading } from "../parts/notices";
import { SearchField } from "../parts/SearchField";
import { TextField } from "../parts/TextField";
import { usePlace } from "../parts/usePlace";
import { Jars } from "./Jars";
import { Learned } from "./Learned";
import { PotLine } from "./PotLine";

const PARTS = [
  ["", "Batches"],
  ["jars", "What is left"],
  ["learned", "What was learnt"],
] as const;

const PAGE = 40;

/** The log: what was really mixed, what is left of it, and what it teaches. */
export function LogView() {
  usePlace("Log");
  const { part = "" } = useParams();
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-8">
      <h1 className="wide text-xl font-bold">Log</h1>
      <PrintedCode />
      <nav aria-label="Parts of the log" className="mt-2 flex flex-wrap pl-0.5 [&>*]:-ml-0.5">
        {PARTS.map(([slug, name]) => (
          <NavLink
            key={slug}
            to={slug ? `/log/${slug}` : "/log"}
            end
            className={({ isActive }) => `press inline-flex items-center ${isActive ? "press-strong" : ""}`}
          >
            {name}
          </NavLink>
        ))}
      </nav>
      {part === "jars" ? <Jars /> : part === "learned" ? <Learned /> : <Batches />}
    </div>
  );
}

function Batches() {
  const [text, setText] = useState("");
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState("");
  const [limit, setLimit] = useState(PAGE);
  const found = useLog(text, from, until, limit);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another search begins at the first page
  useEffect(() => setLimit(PAGE), [text, from, until]);
  return (
    <section aria-label="Batches">
      <div className="mt-4 flex flex-wrap items-end gap-4">
        <div className="min-w-64 grow">
          <SearchField label="Colour, mix, piece, place, or what was said" onSearch={setText} />
        </div>
        <Day label="From" value={from} onChange={setFrom} />
        <Day label="Until" value={until} onChange={setUntil} />
      </div>
      {found.error && !found.data ? (
        <Failure error={found.error} onRetry={() => void found.refetch()} />
      ) : !found.data ? (
        <Loading>Looking through the log…</Loading>
      ) : found.data.all === 0 ? (
        <Empty />
      ) : (
        <>
          <p role="status" className="narrow mt-3 text-sm text-soft">
            {found.data.pots.length === 0
              ? `Nothing like that among ${found.data.all}. Fewer words find more.`
              : `${found.data.pots.length}${found.data.more ? " and more" : ""} of ${found.data.all}`}
          </p>
          <ul className="mt-1 border-t-2 border-ink">
            {found.data.pots.map((pot) => (
              <PotLine key={pot.pot} pot={pot} />
            ))}
          </ul>
          {found.data.more && (
            <button type="button" className="press mt-3" onClick={() => setLimit(limit + PAGE)}>
              More
            </button>
          )}
        </>
      )}
    </section>
  );
}

function Day({ label, value, onChange }: { label: string; value: string; onChange: (day: string) => void }) {
  return (
    <label className={LABEL}>
      {label}
      <input
        type="date"
        className="tape mt-0.5 block"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}

function Empty() {
  return (
    <div className="mt-6 max-w-xl border-l-8 border-ink pl-4">
      <p className="text-lg font-bold">Nothing was mixed at the bench yet.</p>
      <p>
        Open a job, press <em>At the bench</em>, and pour. What is poured, judged and left over is written
        down as it is done, so that a colour can be made again.
      </p>
      <Link to="/" className="press mt-3 inline-flex items-center">
        To the jobs
      </Link>
    </div>
  );
}

/** A code that was printed on a card or a label, typed. */
function PrintedCode() {
  const [code, setCode] = useState("");
  const navigate = useNavigate();
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (code.trim()) navigate(`/b/${encodeURIComponent(code.trim().toLowerCase())}`);
      }}
    >
      <div className="w-56">
        <TextField
          label="A code from a card or a label"
          value={code}
          placeholder="zuna-42"
          onChange={setCode}
        />
      </div>
      <button type="submit" className="press" disabled={!code.trim()}>
        Open it
      </button>
    </form>
  );
}
