/** What the pages of own layouts ask the service for. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { call } from "../../api/call";
import { everyPage } from "../../api/pages";
import type { FormSummary } from "../../api/schemas";
import type { Components } from "../layouts";
import type { OwnDocument, OwnSummary, Preview, Sample } from "./schemas";

/** The lists that change with an own layout: layouts as well, since they say who speaks. */
export const LISTS = ["own-layouts", "layouts", "lines", "check", "versions"];

export function useOwnLayouts() {
  return useQuery({
    queryKey: ["own-layouts"],
    queryFn: () => everyPage<OwnSummary>("layouts/own", "own_layouts"),
  });
}

export function useForms() {
  return useQuery({
    queryKey: ["forms"],
    queryFn: async () => ({ forms: await everyPage<FormSummary>("forms", "forms") }),
    select: (found) => found.forms,
  });
}

export function usePreview(document: OwnDocument, country: string, language: string, components: Components) {
  const body = { document, country_code: country, language, components };
  return useQuery({
    queryKey: ["own-preview", body],
    queryFn: () => call<Preview>("layouts/own/preview", { method: "POST", body }),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
}

export function useSamples(country: string, form: string | undefined) {
  return useQuery({
    queryKey: ["samples", country, form],
    queryFn: async () => {
      const query = form ? `?form=${encodeURIComponent(form)}` : "";
      return (await call<{ samples: Sample[] }>(`layouts/${country}/samples${query}`)).samples;
    },
  });
}
