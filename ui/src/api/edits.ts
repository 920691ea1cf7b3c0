import { useMutation } from "@tanstack/react-query";
import { useKeeping } from "../keep/hooks";
import type { Outbox, Outcome } from "../keep/outbox";
import type { BetterEntry, Kit, Recipe, ShelfItem } from "./client";
import type { Chosen } from "./workshop";

/** How long typing rests before what was typed is sent; kept it is at once. */
const TYPING_MS = 400;

type Put = Parameters<Outbox["put"]>[0];

/** An edit of a document of the workshop: kept here at once, and saved as soon as the server answers. */
export function useKeep<In extends object>(edit: (given: In) => Put) {
  const { outbox } = useKeeping();
  return useMutation<Outcome, Error, In>({
    mutationFn: (given) => outbox.put(edit(given), "typed" in given ? TYPING_MS : 0),
    networkMode: "always",
  });
}

/** A change of what was chosen for the workshop, made to what is on the screen. */
export const useChoose = () =>
  useKeep(({ revision, ...body }: Chosen) => ({
    doc: "setting/workshop",
    label: "What is in use",
    method: "PUT",
    path: "/api/workshop",
    body,
    read: revision,
  }));

/** An entry of one's own as it is now, and the revision it was made from. */
export interface Edited<T> {
  entry: T;
  read: number;
  /** Typing may go on. */
  typed?: true;
}

interface Kind<T> {
  kind: "kit" | "recipe" | "shelf";
  /** Where entries of the kind are. */
  at: string;
  label: (entry: T) => string;
}

/** An entry of one's own is changed; or taken out, where it goes. */
function useEntry<T extends { slug: string }>({ kind, at, label }: Kind<T>, goes: boolean) {
  return useKeep(({ entry, read }: Edited<T>) => ({
    doc: `${kind}/${entry.slug}`,
    label: label(entry),
    method: goes ? "DELETE" : "PUT",
    path: `/api/${at}/${encodeURIComponent(entry.slug)}`,
    body: goes ? null : entry,
    read,
  }));
}

const KIT: Kind<Kit> = { kind: "kit", at: "kits", label: (k) => `Kit: ${k.name}` };
const RECIPE: Kind<Recipe> = { kind: "recipe", at: "recipes", label: (r) => `Recipe: ${r.name}` };
const shelf = (name: string): Kind<ShelfItem> => ({
  kind: "shelf",
  at: "shelf",
  label: (item) => `Shelf: ${name || item.own?.name || item.slug}`,
});

export const usePutKit = () => useEntry(KIT, false);
export const useDeleteKit = () => useEntry(KIT, true);
export const usePutRecipe = () => useEntry(RECIPE, false);
export const useDeleteRecipe = () => useEntry(RECIPE, true);
export const usePutShelf = (name: string) => useEntry(shelf(name), false);
export const useDeleteShelf = (name: string) => useEntry(shelf(name), true);

/** A value of the book that is known better: null puts the book's own back. */
interface Known {
  entry: BetterEntry;
  field: string;
  name: string;
  body: { value: number; source: "label" | "measured"; on: string } | null;
}

export const betterDoc = (entry: BetterEntry, field: string) => `better/${entry.kind}/${entry.slug}/${field}`;

export const useKnowBetter = () =>
  useKeep(({ entry, field, name, body }: Known) => ({
    doc: betterDoc(entry, field),
    label: `${entry.name}: ${name.toLowerCase()}`,
    method: body ? "PUT" : "DELETE",
    path: `/api/${betterDoc(entry, field)}`,
    body,
    read: 0,
  }));
