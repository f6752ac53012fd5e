/** Layouts as the service answers them, and values to try one with. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";

import type * as api from "../../../embed/src/api";
import { call } from "../api/call";
import { valueAt } from "../../../embed/src/dictionary";

export type LayoutEntry = api.LayoutEntry;
/** An own layout that has a say. */
export type OwnStep = api.OwnStepSchema;
export type Layout = api.LayoutAnswer;
export type Confidence = Layout["confidence"];
export type Checked = api.CheckComponentsAnswer;

export type Components = Record<string, string>;

// Made up; what a country asks for beside these stays empty until somebody types it.
const SAMPLE: Components = {
  recipient: "Ana Vale",
  organisation: "Vale Pianos",
  unit: "3",
  building: "Fern Court",
  number: "12",
  street: "Abbey Lane",
  district: "Northside",
  town: "Brackwater",
};

/**
 * Made-up components for a layout: a region of its own, and a postcode that fits; and for others
 * that it does not ask for.
 */
export function sampleFor(layout: Layout, also: readonly string[] = []): Components {
  const sample = Object.fromEntries(
    layout.components.flatMap(({ component, options }) => {
      const first = options?.[0];
      if (first) return [[component, component === "region_code" ? first.code : first.latin]];
      const value = component === "postcode" ? samplePostcode(layout) : valueAt(SAMPLE, component);
      return value ? [[component, value]] : [];
    }),
  ) as Components;
  const others = Object.fromEntries(also.flatMap((name) => (valueAt(SAMPLE, name) ? [[name, valueAt(SAMPLE, name)]] : []))) as Components;
  return { recipient: "Ana Vale", ...others, ...sample };
}

/** A postcode of the first mask that begins as it must. */
export function samplePostcode(layout: Pick<Layout, "masks" | "starts">): string {
  const start = [...(layout.starts[0] ?? "")];
  const filled = [...(layout.masks[0] ?? "")].map((sign) => {
    if (!/[A-Za-z0-9*]/.test(sign)) return sign;
    return start.shift() ?? { "9": "0", A: "K", "*": "2" }[sign] ?? sign;
  });
  return filled.join("");
}

const ALL_LAYOUTS = {
  queryKey: ["layouts"],
  queryFn: () => call<{ layouts: LayoutEntry[]; labels: Record<string, string> }>("layouts"),
  staleTime: Infinity,
};

export function useLayouts() {
  return useQuery({ ...ALL_LAYOUTS, select: (all) => all.layouts });
}

/** What the components are called where no country says otherwise. */
export function useComponentLabels(): Record<string, string> {
  return useQuery({ ...ALL_LAYOUTS, select: (all) => all.labels }).data ?? {};
}

/** A layout as it holds on a form, or everywhere where `form` is empty. */
export function useLayout(country: string, language: string, form = "") {
  const query = new URLSearchParams(form ? { language, form } : { language });
  return useQuery({
    queryKey: ["layouts", country, language, form],
    queryFn: () => call<Layout>(`layouts/${encodeURIComponent(country)}?${query}`),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** The lines of components, for mail from abroad where `from` names a country. */
export function useLines(country: string, form: string, components: Components, from: string | null) {
  return useQuery({
    queryKey: ["lines", country, form, components, from],
    queryFn: async () => {
      const body = { components, international: from !== null, from_country: from, form: form || null };
      return (await call<{ lines: string[] }>(`layouts/${country}/lines`, { method: "POST", body })).lines;
    },
    placeholderData: keepPreviousData,
  });
}

export function useCheck(country: string, form: string, components: Components) {
  const body = { components, form: form || null };
  return useQuery({
    queryKey: ["check", country, body],
    queryFn: () => call<Checked>(`layouts/${country}/check`, { method: "POST", body }),
    placeholderData: keepPreviousData,
  });
}
