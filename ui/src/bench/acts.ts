import { useCallback } from "react";
import { useNoting } from "../api/bench";
import type { Act, BenchOp } from "../api/client";
import { newId } from "../parts/say";

/** What is noted at the bench, each with its words. */
export interface Acts {
  act: (says: string, act: Act, operation?: string) => void;
  mark: (did: "begun" | "done" | "skipped" | "gone wrong", op: BenchOp) => void;
  begin: (op: BenchOp) => void;
  takeBack: (op: BenchOp) => void;
  takeBackPour: (event: string, says: string) => void;
  error: Error | null;
}

/** What a pot is begun with: the server fills in what was planned. */
const begun = (batch: string): Act => ({
  act: "begun",
  pot: newId() + newId(),
  batch,
  code: "",
  name: "",
  colour: "",
  hex: "",
  vessel: "",
  recipe: "",
  technique: "",
  target: "",
  zones: [],
  laid_ml: 0,
  lost_ml: 0,
});

/** Noting for a job; `onMark` runs whenever an operation is marked. */
export function useActs(job: string, minute: () => number, onMark: () => void): Acts {
  const { note, act, error } = useNoting(job, minute);
  const mark = useCallback<Acts["mark"]>(
    (did, op) => {
      onMark();
      void note(`${did[0]?.toUpperCase()}${did.slice(1)}: ${op.operation.says}`, {
        operation: op.operation.id,
        did,
      });
    },
    [note, onMark],
  );
  const retract = (says: string, operation: string, event: string) =>
    void note(`Taken back: ${says}`, { operation, did: "retracted", retracts: event });
  return {
    act: (says, what, operation = "") => void act(says, what, operation),
    mark,
    begin: (op) => {
      mark("begun", op);
      const { says, kind, batch, id } = op.operation;
      if (kind === "mix" && !op.pot) void act(`A pot begun: ${says}`, begun(batch), id);
    },
    takeBack: (op) => retract(op.operation.says, op.operation.id, op.event),
    takeBackPour: (event, says) => retract(says, "", event),
    error,
  };
}
