import type { QueryClient } from "@tanstack/react-query";
import { asks, lastsBeyondPage, NoAnswer, type Problem, Refused, revisionOf } from "../api/client";
import { changed } from "../api/follows";
import { Sessions } from "../job/sessions";
import { newId } from "../parts/say";
import type { Edit } from "./edits";
import { NotTaken, Outbox } from "./outbox";
import { Pages } from "./pages";
import { Lasting, Passing, type Store } from "./store";

/** Where this page keeps what it keeps. */
export interface Place {
  store: Store;
  pages: Pages;
  page: string;
  /** Whether the browser keeps anything. */
  lasting: boolean;
}

/** What this page keeps, and where: made once, before anything is shown. */
export interface Keeping extends Place {
  outbox: Outbox;
  sessions: Sessions;
  /** Keep nothing more, and let go of what keeps it: this device is asked for a code. */
  stop(): Promise<void>;
}

const LOOK_EVERY_MS = 5000;

async function send(edit: Edit): Promise<number> {
  const body = edit.body === null ? null : JSON.stringify(edit.body);
  const reply = await fetch(edit.path, {
    method: edit.method,
    headers: {
      "Content-Type": "application/json",
      "If-Match": `"${edit.read}"`,
      "Idempotency-Key": edit.key,
    },
    body,
    keepalive: lastsBeyondPage(body),
  }).catch(() => {
    throw new NoAnswer();
  });
  if (asks(reply) || reply.status >= 500) throw new NoAnswer();
  if (reply.ok) return revisionOf(reply);
  const problem = (await reply.json().catch(() => ({ detail: reply.statusText }))) as Problem;
  if (edit.method === "DELETE" && reply.status === 404) return 0; // gone already
  const fault = problem.faults?.[0];
  const says = `${problem.detail}${fault?.allowed ? ` Allowed: ${fault.allowed}.` : ""}`;
  throw new NotTaken(says, reply.status === 412 ? (problem.head ?? 0) : null, new Refused(problem));
}

/** Open what this browser keeps. Where it keeps nothing, all goes on as long as the page is there. */
export async function openKeeping(client: QueryClient): Promise<Keeping> {
  const page = newId();
  let store: Store;
  let lasting = true;
  try {
    store = await Lasting.open();
    await store.change((edits) => edits);
  } catch {
    store = new Passing();
    lasting = false;
  }
  const pages = new Pages(store, page);
  const others = new BroadcastChannel("lumso");
  const outbox = new Outbox(
    store,
    {
      send,
      alive: pages.alive,
      saved: () => void changed(client),
      tell: () => others.postMessage("look"),
      now: () => Date.now(),
      later: (ms, run) => {
        const timer = window.setTimeout(run, ms);
        return () => window.clearTimeout(timer);
      },
      newKey: newId,
    },
    page,
  );
  outbox.lasting = lasting;
  others.onmessage = () => void outbox.look();
  for (const event of ["online", "pageshow", "focus"])
    window.addEventListener(event, () => void outbox.look());
  window.addEventListener("pagehide", outbox.hurry);
  pages.here();
  await outbox.look();
  const place = { store, pages, page, lasting };
  const sessions = new Sessions(client, place);
  await sessions.pickUp();
  // A page that is closed while others are open leaves its edits to them.
  const looking = window.setInterval(() => void outbox.look().then(() => sessions.pickUp()), LOOK_EVERY_MS);
  const stop = async () => {
    window.clearInterval(looking);
    others.close();
    await pages.gone();
    store.close();
  };
  return { ...place, outbox, sessions, stop };
}
