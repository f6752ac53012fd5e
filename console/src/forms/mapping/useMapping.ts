/** What the service says of a mapping while it is being made: samples, results, findings. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";
import type { FillAnswer, FormDocument } from "../../api/schemas";

export type Sample = api.MappingSample;
export type Finding = api.MappingFinding;
export type ChangeKind = api.ChangeKindSchema;
export type Setting = api.ChangeSettingSchema;

const PAUSE_MS = 300;

/** A value that stands still for a moment before it counts. */
export function useSettled<Value>(value: Value, ms = PAUSE_MS): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

/** Samples of a slot that the service keeps already. */
export function useSamples(form: string, slot: string, isThere: boolean) {
  const answer = useQuery({
    queryKey: ["mapping-samples", form, slot],
    queryFn: () => call<api.MappingSamples>(`forms/${form}/slots/${slot}/samples`),
    enabled: isThere,
  });
  return answer.data?.samples;
}

/** What a mapping makes of an address; of the latest document that stood still. */
export function useTried(form: string, slot: string, document: FormDocument, address: string | undefined) {
  const settled = useSettled(document);
  return useQuery({
    queryKey: ["mapping-tried", form, slot, address, JSON.stringify(settled)],
    queryFn: () =>
      call<FillAnswer>(`forms/${form}/slots/${slot}/try`, {
        method: "POST",
        body: { document: settled, address_id: address },
      }),
    enabled: Boolean(address),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
}

export function useLint(form: string, document: FormDocument) {
  const settled = useSettled(document, 2 * PAUSE_MS);
  return useQuery({
    queryKey: ["mapping-lint", form, JSON.stringify(settled)],
    queryFn: () => call<api.LintAnswer>(`forms/${form}/lint`, { method: "POST", body: { document: settled } }),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
}

export function useChangeKinds(): Record<string, ChangeKind> {
  const answer = useQuery({
    queryKey: ["mapping-changes"],
    queryFn: () => call<api.MappingChanges>("mapping-changes"),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return Object.fromEntries((answer.data?.changes ?? []).map((kind) => [kind.name, kind]));
}
