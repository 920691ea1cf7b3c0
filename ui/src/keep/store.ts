import { type IDBPDatabase, openDB } from "idb";
import type { Edit } from "./edits";

/** What is kept of a job that is being worked on, by a page of this browser. */
export interface Draft {
  job: string;
  page: string;
  at: number;
  kept: unknown;
}

/** What a browser keeps for us, whatever becomes of the page. */
export interface Store {
  /** All edits that wait, changed in one go: no other page comes between. */
  change(run: (edits: Edit[]) => Edit[]): Promise<Edit[]>;
  /** All edits that wait, as they are. */
  waiting(): Promise<Edit[]>;
  drafts(): Promise<Draft[]>;
  putDraft(draft: Draft): Promise<void>;
  dropDraft(job: string, page: string): Promise<void>;
  /** The newest draft of a job that no living page holds becomes this page's own; null where there is none. */
  adopt(job: string, page: string, alive: ReadonlySet<string>): Promise<Draft | null>;
  /** Say that a page is there at a time; null that it is gone. */
  beat(page: string, at: number | null): Promise<void>;
  /** When each page was last there. */
  beats(): Promise<Map<string, number>>;
  wipe(): Promise<void>;
  close(): void;
}

const newest = (drafts: Draft[], job: string, page: string, alive: ReadonlySet<string>) =>
  drafts
    .filter((d) => d.job === job && (d.page === page || !alive.has(d.page)))
    .sort((a, b) => b.at - a.at)[0];

/** Where the browser keeps nothing: as long as the page is there. */
export class Passing implements Store {
  private edits: Edit[] = [];
  private held = new Map<string, Draft>();
  private pages = new Map<string, number>();

  change = async (run: (edits: Edit[]) => Edit[]) => {
    this.edits = run(this.edits);
    return this.edits;
  };
  waiting = async () => this.edits;
  drafts = async () => [...this.held.values()];
  putDraft = async (draft: Draft) => void this.held.set(`${draft.job} ${draft.page}`, draft);
  dropDraft = async (job: string, page: string) => void this.held.delete(`${job} ${page}`);
  adopt = async (job: string, page: string, alive: ReadonlySet<string>) => {
    const found = newest([...this.held.values()], job, page, alive);
    if (!found) return null;
    this.held.delete(`${job} ${found.page}`);
    const mine = { ...found, page };
    this.held.set(`${job} ${page}`, mine);
    return mine;
  };
  beat = async (page: string, at: number | null) => {
    if (at === null) this.pages.delete(page);
    else this.pages.set(page, at);
  };
  beats = async () => new Map(this.pages);
  wipe = async () => {
    this.edits = [];
    this.held.clear();
  };
  close = () => undefined;
}

const KEPT = "kept";
const EDITS = "edits";
const LASTING = { durability: "strict" } as const;

/** The browser's own database. */
export class Lasting implements Store {
  private constructor(private readonly db: IDBPDatabase) {}

  static async open(): Promise<Lasting> {
    const db = await openDB("lumso", 1, { upgrade: (fresh) => void fresh.createObjectStore(KEPT) });
    db.addEventListener("versionchange", () => db.close());
    return new Lasting(db);
  }

  change = async (run: (edits: Edit[]) => Edit[]) => {
    const held = this.db.transaction(KEPT, "readwrite", LASTING);
    const after = run(((await held.store.get(EDITS)) as Edit[] | undefined) ?? []);
    void held.store.put(after, EDITS);
    await held.done;
    return after;
  };
  waiting = async () => ((await this.db.get(KEPT, EDITS)) as Edit[] | undefined) ?? [];
  drafts = async () => (await this.db.getAll(KEPT, IDBKeyRange.bound(["draft"], ["draft", []]))) as Draft[];
  putDraft = async (draft: Draft) => {
    const held = this.db.transaction(KEPT, "readwrite", LASTING);
    void held.store.put(draft, ["draft", draft.job, draft.page]);
    await held.done;
  };
  dropDraft = (job: string, page: string) => this.db.delete(KEPT, ["draft", job, page]);
  adopt = async (job: string, page: string, alive: ReadonlySet<string>) => {
    const held = this.db.transaction(KEPT, "readwrite", LASTING);
    const all = (await held.store.getAll(IDBKeyRange.bound(["draft"], ["draft", []]))) as Draft[];
    const found = newest(all, job, page, alive);
    const mine = found ? { ...found, page } : null;
    if (found && mine) {
      void held.store.delete(["draft", job, found.page]);
      void held.store.put(mine, ["draft", job, page]);
    }
    await held.done;
    return mine;
  };
  beat = async (page: string, at: number | null) => {
    if (at === null) await this.db.delete(KEPT, ["page", page]);
    else await this.db.put(KEPT, at, ["page", page]);
  };
  beats = async () => {
    const held = this.db.transaction(KEPT);
    const range = IDBKeyRange.bound(["page"], ["page", []]);
    const [keys, at] = await Promise.all([held.store.getAllKeys(range), held.store.getAll(range)]);
    return new Map(keys.map((key, i) => [(key as string[])[1] ?? "", at[i] as number]));
  };
  wipe = () => this.db.clear(KEPT);
  /** How much waits here: what was entered and not sent, and jobs that are not saved. */
  unsent = async () => (await this.waiting()).length + (await this.drafts()).length;
  close = () => this.db.close();
}
