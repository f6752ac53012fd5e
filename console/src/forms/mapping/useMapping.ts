/** What the service says of a mapping while it is being made: samples, results, findings. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";
import type { FillAnswer, FormDocument } from "../../api/schemas";
import type { MappingPlace } from "./place";

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
export function useSamples(place: MappingPlace, slot: string, isThere: boolean) {
  const answer = useQuery({
    queryKey: ["mapping-samples", place.of(slot)],
    queryFn: () => call<api.MappingSamples>(`${place.of(slot)}/samples`),
    enabled: isThere,
  });
  return answer.data?.samples;
}

/** What a mapping makes of an address; of the latest document that stood still. */
export function useTried(place: MappingPlace, slot: string, document: FormDocument, address: string | undefined) {
  const settled = useSettled(document);
  return useQuery({
    queryKey: ["mapping-tried", place.of(slot), address, JSON.stringify(settled)],
    queryFn: () =>
      call<FillAnswer>(`${place.of(slot)}/try`, {
        method: "POST",
        body: { document: place.sent(settled), address_id: address },
      }),
    enabled: Boolean(address),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
}

export function useLint(place: MappingPlace, document: FormDocument) {
  const settled = useSettled(document, 2 * PAUSE_MS);
  return useQuery({
    queryKey: ["mapping-lint", place.whole, JSON.stringify(settled)],
    queryFn: async () => {
      const found = await call<api.LintAnswer>(`${place.whole}/lint`, { method: "POST", body: { document: place.sent(settled) } });
      return { ...found, problems: found.problems.map((one) => ({ ...one, pointer: place.pointer(one.pointer) })) };
    },
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
