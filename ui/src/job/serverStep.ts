import type { JobReply } from "../api/client";
import type { Outside } from "./outer";

export type StepWay = "undo" | "redo";

/** A step of undo or redo that only the server knows. Pressed again because no answer came, it is the same step. */
export class ServerStep {
  private last: { way: StepWay; revision: number; key: string } | null = null;

  constructor(private readonly outside: Outside) {}

  async go(way: StepWay, revision: number): Promise<JobReply> {
    const goesOn = this.last?.way === way && this.last.revision === revision;
    const key = goesOn && this.last ? this.last.key : this.outside.newKey();
    this.last = { way, revision, key };
    const got = await this.outside.step(way, revision, key);
    this.last = null;
    return got;
  }
}
