import type { Queue, Way } from "./queue";

/** One step of undo: the changes that made it, in order. */
export interface Done {
  label: string;
  keys: string[];
  at: number;
}

/** One step of redo: how each change of it comes back, the last one undone first. */
export interface Undone {
  label: string;
  ways: Way[];
}

/** What can be undone and done again without asking the server. */
export class History {
  past: Done[] = [];
  future: Undone[] = [];

  constructor(
    private readonly queue: Queue,
    private readonly newKey: () => string,
  ) {}

  clear = (): void => {
    this.past = [];
    this.future = [];
  };

  /** Something was done; `goesOn` where it is one step with the last. */
  did(label: string, key: string, at: number, goesOn: boolean): void {
    const last = this.past.at(-1);
    if (goesOn && last) {
      last.at = at;
      if (!last.keys.includes(key)) last.keys.push(key);
    } else this.past.push({ label, keys: [key], at });
    this.future = [];
  }

  /** Whether a change goes on where the one before it was. */
  goesOn(key: string): boolean {
    const keys = this.past.at(-1)?.keys ?? [];
    return keys.length > 1 && keys.at(-1) === key;
  }

  /** Take the last step back; false where there is none. */
  undo(): boolean {
    const done = this.past.pop();
    if (!done) return false;
    const { label, keys } = done;
    const ways = keys.toReversed().map((key) => this.queue.takeBack(label, key, this.newKey()));
    this.future.push({ label, ways });
    return true;
  }

  /** Do again what was undone last; false where nothing was. */
  redo(at: number): boolean {
    const undone = this.future.pop();
    if (!undone) return false;
    const { label, ways } = undone;
    const keys = ways.toReversed().map((way) => {
      if ("again" in way) return this.queue.push(way.again);
      const back = this.queue.takeBack(label, way.key, this.newKey());
      return "again" in back ? way.of : back.key;
    });
    this.past.push({ label, keys, at });
    return true;
  }
}
