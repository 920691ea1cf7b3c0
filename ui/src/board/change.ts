import type { Strip } from "../api/boards";
import type { Job } from "../api/client";

/** The board's job with one of its strips changed. */
export const changeStrip = (job: Job, zone: string, part: Partial<Strip>): Job =>
  job.board
    ? {
        ...job,
        board: {
          ...job.board,
          strips: job.board.strips.map((s) => (s.zone === zone ? { ...s, ...part } : s)),
        },
      }
    : job;
