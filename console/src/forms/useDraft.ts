/** A form's draft: what is kept, what was changed here, saving and publishing. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { type Answer, call, callWithEtag } from "../api/call";
import type { Draft, FormDocument, FormSummary } from "../api/shapes";

export function useDraft(key: string) {
  const queries = useQueryClient();
  const queryKey = ["draft", key];
  const kept = useQuery({
    queryKey,
    queryFn: () => callWithEtag<Draft>(`forms/${key}/draft`),
    // What somebody else changed must not replace what is being edited here.
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [edited, setEdited] = useState<FormDocument | null>(null);
  const document = edited ?? kept.data?.body.document ?? null;

  const refreshLists = (): void => {
    void queries.invalidateQueries({ queryKey: ["forms"] });
    void queries.invalidateQueries({ queryKey: ["stand"] });
  };
  const save = useMutation({
    mutationFn: () =>
      callWithEtag<Draft>(`forms/${key}/draft`, {
        method: "PUT",
        body: document,
        etag: kept.data?.etag ?? null,
      }),
    onSuccess: (answer) => {
      queries.setQueryData(queryKey, answer);
      setEdited(null);
      refreshLists();
    },
  });
  const publish = useMutation({
    mutationFn: () => call<FormSummary>(`forms/${key}/publish`, { method: "POST" }),
    onSuccess: (form) => {
      queries.setQueryData<Answer<Draft>>(queryKey, (old) =>
        old ? { ...old, body: { ...old.body, form } } : old,
      );
      refreshLists();
    },
  });
  const edit = useCallback((next: FormDocument) => setEdited(next), []);
  const discard = (): void => {
    setEdited(null);
    save.reset();
    void kept.refetch();
  };
  return { kept, document, changed: edited !== null, edit, save, publish, discard };
}

export type DraftState = ReturnType<typeof useDraft>;
