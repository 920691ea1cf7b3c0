import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Catalogue, type JobLine, type JobReply, type Workshop } from "./client";

export function useCatalogue() {
  return useQuery<Catalogue>({
    queryKey: ["catalogue"],
    queryFn: () => answer(api.GET("/api/catalogue")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useJobs() {
  return useQuery<JobLine[]>({ queryKey: ["jobs"], queryFn: () => answer(api.GET("/api/jobs")) });
}

export function useWorkshop() {
  return useQuery<Workshop>({ queryKey: ["workshop"], queryFn: () => answer(api.GET("/api/workshop")) });
}

export function useSetWorkshop() {
  const client = useQueryClient();
  return useMutation<Workshop, Error, Workshop>({
    mutationFn: (workshop) => answer(api.PUT("/api/workshop", { body: workshop })),
    onSuccess: (workshop) => client.setQueryData(["workshop"], workshop),
  });
}

export function useBeginJob() {
  const client = useQueryClient();
  return useMutation<JobReply, Error, { recipe: string; ml?: number }>({
    mutationFn: (start) => answer(api.POST("/api/jobs/start", { body: start })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["jobs"] }),
  });
}

export function usePutAway() {
  const client = useQueryClient();
  return useMutation<unknown, Error, { id: string; away: boolean }>({
    mutationFn: ({ id, away }) =>
      answer(api.PUT("/api/jobs/{job_id}/away", { params: { path: { job_id: id } }, body: { away } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["jobs"] }),
  });
}
