/** A document's draft: what is kept, what was changed here, saving and publishing. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { call, callWithEtag } from "../api/call";
import { useHeld } from "./useHeld";
import { useUnsaved } from "./useUnsaved";

/** What lists show of a document that is drafted and published. */
export interface Drafted {
  published_version: number | null;
  draft_differs: boolean;
}

/**
 * @param path of the document below the API's root, such as `forms/venue`
 * @param lists keys of the queries that a change makes old
 */
export function useDraft<Document, Body extends { document: Document }>(path: string, lists: string[]) {
  const queries = useQueryClient();
  const queryKey = ["draft", path];
  const kept = useQuery({
    queryKey,
    queryFn: () => callWithEtag<Body>(`${path}/draft`),
    // What somebody else changed must not replace what is being edited here.
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const [edited, setEdited] = useHeld<Document | null>(`draft of ${path}`, null);
  const document = edited ?? kept.data?.body.document ?? null;

  const refreshLists = async (): Promise<void> => {
    await Promise.all([["draft", path], ...lists.map((list) => [list])].map((key) => queries.invalidateQueries({ queryKey: key })));
  };
  const save = useMutation({
    mutationFn: () =>
      callWithEtag<Body>(`${path}/draft`, { method: "PUT", body: document, etag: kept.data?.etag ?? null }),
    onSuccess: async (answer) => {
      queries.setQueryData(queryKey, answer);
      setEdited(null);
      await refreshLists();
    },
  });
  const publish = useMutation({
    mutationFn: () => call<Drafted>(`${path}/publish`, { method: "POST", etag: kept.data?.etag ?? null }),
    onSuccess: refreshLists,
  });
  useUnsaved(edited !== null);
  const edit = useCallback((next: Document) => setEdited(next), [setEdited]);
  const discard = (): void => {
    setEdited(null);
    save.reset();
    void kept.refetch();
  };
  return { kept, document, changed: edited !== null, edit, save, publish, discard, refreshLists };
}

export type DraftState<Document, Body extends { document: Document }> = ReturnType<
  typeof useDraft<Document, Body>
>;
/** A draft of any kind, as far as saving and publishing go. */
export type AnyDraft = Pick<
  DraftState<unknown, { document: unknown }>,
  "changed" | "discard" | "save" | "publish"
>;
