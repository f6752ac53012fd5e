/** Making a new form from a document, and going on to design it. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { call } from "../../api/call";
import { everyPage } from "../../api/pages";
import type { Draft, FormDocument, FormSummary } from "../../api/schemas";
import { keyFrom } from "../design/keys";

/** Keeps a document as a new form, under a key that is made from its title. */
export function useBegin() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: async (document: FormDocument) => {
      const there = { forms: await everyPage<FormSummary>("forms", "forms") };
      const taken = new Set(there.forms.map((form) => form.key.replaceAll("-", "_")));
      const key = keyFrom(document.title, taken, "form").replaceAll("_", "-");
      const body = { ...document, key };
      await call<Draft>(`forms/${key}/draft?unfinished=true`, { method: "PUT", body });
      return key;
    },
    onSuccess: async (key) => {
      await Promise.all([["forms"], ["overview"]].map((queryKey) => queries.invalidateQueries({ queryKey })));
      await navigate(`/forms/${key}`);
    },
  });
}
