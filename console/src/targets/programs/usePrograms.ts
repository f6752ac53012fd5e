/** Program targets as the service has them: looks, proposals, ready-made targets, runs. */

import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";

export type ProgramDocument = api.ProgramTargetDocument;
export type ProgramAddress = api.ProgramAddressSchema;
export type ProgramField = api.ProgramFieldSchema;
export type Writing = api.WritingSchema;
export type Screen = api.ScreenSchema;
export type Condition = api.ConditionSchema;
export type Look = api.LookSchema;
export type Run = api.TargetRunSchema;
export type Wording = NonNullable<ProgramDocument["wording"]>;
/** A wording of which something is left unsaid. */
export type PartOfWording = { [name in keyof Wording]: Wording[name] | null };
export type Step = Writing["steps"][number];

export interface ProgramProps {
  document: ProgramDocument;
  edit: (document: ProgramDocument) => void;
}

const LOOK_AGAIN_MS = 3000;

/** Looks of the last days; asked again, so that one just sent appears. */
export function useLooks() {
  return useQuery({ queryKey: ["looks"], queryFn: () => call<api.LookList>("looks"), refetchInterval: LOOK_AGAIN_MS });
}

export function useRemoveLook() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (look: string) => call(`looks/${look}`, { method: "DELETE" }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["looks"] }),
  });
}

export function useReadyMade() {
  return useQuery({ queryKey: ["ready-made-targets"], queryFn: () => call<api.ReadyMadeTargetList>("ready-made-targets") });
}

export function useRuns(target: string) {
  return useInfiniteQuery({
    queryKey: ["target-runs", target],
    queryFn: ({ pageParam }) => call<api.TargetRunList>(`targets/${target}/runs?limit=100${pageParam && `&after=${encodeURIComponent(pageParam)}`}`),
    initialPageParam: "",
    getNextPageParam: (page) => page.after,
  });
}

/** A look's facts as they are sent. */
export const factsOf = (look: Look): { kind: string; text: string }[] => look.facts.map(({ kind, text }) => ({ kind, text }));

export const proposeProgram = (body: object): Promise<api.ProgramProposalAnswer> => call("program-proposals", { method: "POST", body });

export const proposeSignature = (looks: Look[], others: Look[]): Promise<api.SignatureProposalAnswer> =>
  call("signature-proposals", { method: "POST", body: { looks: looks.map(factsOf), others: others.map(factsOf) } });

export const recognise = (look: Look): Promise<api.RecognitionAnswer> =>
  call("recognitions", { method: "POST", body: { facts: factsOf(look), drafts: true } });
