/** Targets as the service has them: pages and programs that are not ours. */

import { useQuery } from "@tanstack/react-query";

import type * as api from "../../../embed/src/api";
import { call } from "../api/call";
import { everyPage } from "../api/pages";

export type TargetDocument = api.PageTargetDocument;
/** A target of either kind. */
export type AnyTarget = api.TargetDraft["document"];
export type TargetDraft = api.TargetDraft;
export type TargetSummary = api.TargetSummary;
export type PageField = api.PageFieldSchema;
export type TargetField = api.PageFieldSchema | api.ProgramFieldSchema;
export type FieldType = NonNullable<TargetField["type"]>;
export type TargetAddress = api.PageAddressSchema | api.ProgramAddressSchema;
export type PageAddress = api.PageAddressSchema;
export type Rule = NonNullable<PageAddress["mapping"]>[number];
export type SeenField = api.SeenFieldSchema;

export function useTargets() {
  return useQuery({ queryKey: ["targets"], queryFn: async () => ({ targets: await everyPage<api.TargetSummary>("targets", "targets") }) });
}

/** Mistakes of set-up that pages have reported. */
export function useFaults(key: string) {
  return useQuery({ queryKey: ["target-faults", key], queryFn: () => call<api.TargetFaultList>(`targets/${key}/faults`) });
}

/** What a page's fields are taken for. */
export const propose = (key: string, title: string, fields: SeenField[], origins: string[]): Promise<api.TargetProposalAnswer> =>
  call("target-proposals", { method: "POST", body: { key, title, fields, origins } });

/** What a practice address would put into a page or a program. */
export const tryTarget = (document: AnyTarget, address: string): Promise<api.TargetTrialAnswer> =>
  call("target-trials", { method: "POST", body: { document, address } });
