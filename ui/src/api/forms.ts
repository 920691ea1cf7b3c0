import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type FormLine } from "./client";

/** Pieces by their everyday words, each drawn with its usual sizes. */
export function useForms() {
  return useQuery<FormLine[]>({
    queryKey: ["forms"],
    queryFn: () => answer(api.GET("/api/forms")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** A piece with the sizes that are typed; an error says what they cannot be. */
export function useFormWith(slug: string, typed: string) {
  return useQuery<FormLine>({
    queryKey: ["forms", slug, typed],
    queryFn: ({ signal }) =>
      answer(api.POST("/api/forms/{slug}", { params: { path: { slug } }, body: { typed }, signal })),
    enabled: slug !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
