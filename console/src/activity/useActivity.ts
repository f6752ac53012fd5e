/** What is called, fetched and captured, as the service has it. */

import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import type * as api from "../../../embed/src/api";
import { call } from "../api/call";

export type Call = api.CallSchema;
export type Subject = api.SubjectUsage;

const FOLLOWED_EVERY_MS = 1500;

export interface CallFilter {
  subject?: string | undefined;
  endpoint?: string | undefined;
  outcome?: string | undefined;
}

/** A query string of what is given. */
export function asQuery(given: object): string {
  const kept = Object.entries(given as Record<string, unknown>).filter(([, value]) => value !== undefined && value !== null && value !== "");
  return new URLSearchParams(kept.map(([name, value]) => [name, String(value)])).toString();
}

export function useCalls(filter: CallFilter, before: number | undefined, follows: boolean) {
  return useQuery({
    queryKey: ["activity", filter, before],
    queryFn: () => call<api.ActivityAnswer>(`activity?${asQuery({ ...filter, before, limit: 50 })}`),
    placeholderData: keepPreviousData,
    refetchInterval: follows ? FOLLOWED_EVERY_MS : false,
  });
}

export function useObservations() {
  return useQuery({ queryKey: ["observations"], queryFn: () => call<api.ObservationList>("observations"), refetchInterval: 60_000 });
}

export function useObserve() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (wanted: api.ObserveRequest) => call<api.ObservationList>("observations", { method: "PUT", body: wanted }),
    onSuccess: (answer) => queries.setQueryData(["observations"], answer),
  });
}

export function useUsage(month: string) {
  return useQuery({ queryKey: ["usage", month], queryFn: () => call<api.UsageAnswer>(`usage?month=${month}`) });
}

export function useAllow() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ key, ...body }: api.AllowanceRequest & { key: string }) => call<api.KeySchema>(`keys/${key}/allowance`, { method: "PUT", body }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["usage"] }),
  });
}

export function useQuality(since: string) {
  return useQuery({ queryKey: ["quality", since], queryFn: () => call<api.QualityAnswer>(`capture-quality?since=${since}`) });
}
