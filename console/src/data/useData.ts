/** Datasets from the service, looked at again while work on them is going on. */

import { type UseMutationResult, type UseQueryResult, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { call } from "../api/call";
import { everyPage } from "../api/pages";
import type { Dataset, DatasetSummary, Edition, Job, Rules } from "./schemas";
import { isOpen } from "./schemas";

const WHILE_WORKING_MS = 700;
const AT_REST_MS = 15_000;

export function pathOf(dataset: string, edition?: number): string {
  const path = `datasets/${encodeURIComponent(dataset)}`;
  return edition === undefined ? path : `${path}/editions/${edition}`;
}

export function useDatasets(): UseQueryResult<DatasetSummary[]> {
  return useQuery({
    queryKey: ["datasets"],
    queryFn: () => everyPage<DatasetSummary>("datasets", "datasets"),
    refetchInterval: (query) =>
      query.state.data?.some((dataset) => dataset.open_job) ? WHILE_WORKING_MS : AT_REST_MS,
  });
}

export function useDataset(name: string): UseQueryResult<Dataset> {
  return useQuery({
    queryKey: ["datasets", name],
    queryFn: () => call<Dataset>(pathOf(name)),
    refetchInterval: (query) =>
      query.state.data?.jobs.some(isOpen) ? WHILE_WORKING_MS : AT_REST_MS,
  });
}

/** An edition; `settled` changes with the dataset's jobs, so that a comparison shows when it is done. */
export function useEdition(name: string, number: number, settled: string): UseQueryResult<Edition> {
  return useQuery({
    queryKey: ["datasets", name, number, settled],
    queryFn: () => call<Edition>(pathOf(name, number)),
    placeholderData: (previous) => previous,
  });
}

/** A change to datasets; whatever is shown of them is looked at again after it. */
function useChange<Given, Answer>(
  change: (given: Given) => Promise<Answer>,
): UseMutationResult<Answer, Error, Given> {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSettled: async () => {
      await queries.invalidateQueries({ queryKey: ["datasets"] });
      await queries.invalidateQueries({ queryKey: ["overview"] });
    },
  });
}

/** What can be done with an edition by one call: `activate`, `compare`, `rebuild`. */
export function useEditionAction(
  dataset: string,
): UseMutationResult<Dataset | Job, Error, { number: number; action: string }> {
  return useChange(({ number, action }) =>
    call<Dataset | Job>(`${pathOf(dataset, number)}/${action}`, { method: "POST" }),
  );
}

export function useRemoval(dataset: string): UseMutationResult<void, Error, number> {
  return useChange((number) => call<void>(pathOf(dataset, number), { method: "DELETE" }));
}

export function useDatasetRemoval(): UseMutationResult<void, Error, string> {
  return useChange((dataset) => call<void>(pathOf(dataset), { method: "DELETE" }));
}

export function useCancel(): UseMutationResult<Job, Error, string> {
  return useChange((job) => call<Job>(`jobs/${job}/cancel`, { method: "POST" }));
}

export function useRetry(): UseMutationResult<Job, Error, string> {
  return useChange((job) => call<Job>(`jobs/${job}/retry`, { method: "POST" }));
}

export function useDiscardFile(): UseMutationResult<Job, Error, string> {
  return useChange((job) => call<Job>(`jobs/${job}/file`, { method: "DELETE" }));
}

export function useRules(dataset: string): UseMutationResult<Dataset, Error, Rules> {
  return useChange((rules) => call<Dataset>(`${pathOf(dataset)}/rules`, { method: "PUT", body: rules }));
}
