import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Advice, type Asked, answer, api, type LeftOver } from "./client";

/** What can be done with an amount of a mix that is left. */
export function useLeftOver(recipe: string, ml: number) {
  return useQuery<LeftOver>({
    queryKey: ["left over", recipe, ml],
    queryFn: ({ signal }) => answer(api.POST("/api/ask/left", { body: { recipe, ml }, signal })),
    enabled: recipe !== "" && ml > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** An amount as it is typed, in ml; or why it cannot be read. */
export function useAmount(typed: string) {
  return useQuery<number>({
    queryKey: ["amount", typed],
    queryFn: async ({ signal }) => (await answer(api.POST("/api/amounts", { body: { typed }, signal }))).ml,
    enabled: typed.trim() !== "",
    retry: false,
  });
}

/** What the advisers say of a piece that is no job yet. */
export function useAsked(asked: Asked, ready: boolean) {
  return useQuery<Advice>({
    queryKey: ["asked", asked],
    queryFn: ({ signal }) => answer(api.POST("/api/ask/advice", { body: asked, signal })),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
