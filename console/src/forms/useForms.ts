/** All forms, as lists show them. */

import { useQuery } from "@tanstack/react-query";

import { call } from "../api/call";
import type { FormSummary } from "../api/schemas";

export function useForms() {
  return useQuery({ queryKey: ["forms"], queryFn: () => call<{ forms: FormSummary[] }>("forms") });
}
