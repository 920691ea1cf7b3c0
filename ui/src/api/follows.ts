import type { QueryClient } from "@tanstack/react-query";

/** What is worked out of the documents of the workshop, or lists them. */
const FOLLOWS = [
  "advice",
  "aside",
  "backups",
  "backwards",
  "bench",
  "better",
  "buying",
  "catalogue",
  "cost",
  "days",
  "days-chosen",
  "jobs",
  "log",
  "measure",
  "mix-sheet",
  "settings",
  "sheet",
  "shelf",
  "steps",
  "unread",
  "workshop-mode",
];

/** The workshop was changed: all that follows from it is asked for again. */
export const changed = (client: QueryClient): Promise<unknown> =>
  Promise.all(FOLLOWS.map((key) => client.invalidateQueries({ queryKey: [key] })));
