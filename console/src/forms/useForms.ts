/** All forms, as lists show them. */

import { useQuery } from "@tanstack/react-query";

import { everyPage } from "../api/pages";
import type { FormSummary } from "../api/schemas";

export function useForms() {
  return useQuery({ queryKey: ["forms"], queryFn: async () => ({ forms: await everyPage<FormSummary>("forms", "forms") }) });
}
