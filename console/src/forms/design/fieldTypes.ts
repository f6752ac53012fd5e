/** The types of fields that the service knows, and an address. */

import { useQuery } from "@tanstack/react-query";

import { call } from "../../api/call";
import type { FieldType } from "../../api/schemas";

/** What an address is called where types of fields are chosen. */
export const ADDRESS: Pick<FieldType, "name" | "title" | "says"> = {
  name: "slot",
  title: "Address",
  says: "Found as people type, and filled into its fields.",
};

export function useFieldTypes(): FieldType[] {
  const types = useQuery({
    queryKey: ["field-types"],
    queryFn: () => call<{ types: FieldType[] }>("field-types"),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return types.data?.types ?? [];
}
