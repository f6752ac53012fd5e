/** The state of a document that is being edited: with undo and redo, kept as one works. */

import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";

import { callWithEtag } from "../../api/call";
import { useSession } from "../../shell/session";
import { keepsDraft } from "../held";
import { type History, began, edited, merged, redone, typedAt, undone } from "./history";
import { DraftKeeper } from "./keeper";
import type { AnyDocument, DraftOf, KindOfDocument } from "./kind";
import { merge } from "./merge";
import { type Opened, answered, opening } from "./opening";
import { flushStash, stash, stashed } from "./stash";

type Action<Document> =
  | { type: "edited"; document: Document; about?: string | undefined }
  | { type: "undone" }
  | { type: "redone" }
  | { type: "came"; document: Document };

function reduce<Document>(history: History<Document>, action: Action<Document>): History<Document> {
  if (action.type === "undone") return undone(history);
  if (action.type === "redone") return redone(history);
  if (action.type === "came") return merged(history, action.document);
  return edited(history, action.document, action.about ?? typedAt(history.present, action.document));
}

/**
 * @param cameIn told, in a sentence, where somebody else's changes came in
 */
export function useKeeping<Document extends AnyDocument, Body extends DraftOf<Document>>(
  kind: KindOfDocument<Document>,
  key: string,
  opened: Opened<Document, Body>,
  cameIn: (sentence: string) => void,
) {
  const path = `${kind.path}/${key}`;
  const queries = useQueryClient();
  const session = useSession();
  const [, show] = useReducer((count: number) => count + 1, 0);
  const said = useRef(cameIn);
  said.current = cameIn;
  const [history, dispatch] = useReducer(reduce<Document>, null, () => beginning(kind, path, opened));
  const [keeper] = useState(
    () =>
      new DraftKeeper<Document, Body>(opened.kept, kind.shape, {
        put: (document, etag) => answered(kind, callWithEtag<Body>(`${path}/draft?unfinished=true`, { method: "PUT", body: document, etag })),
        get: () => answered(kind, callWithEtag<Body>(`${path}/draft`)),
        stash: (left) => stash(path, left),
        changed: show,
        cameIn: (document, whose) => {
          dispatch({ type: "came", document });
          if (whose === "another") said.current("Somebody else's changes have come in.");
        },
        later: (work, ms) => {
          const timer = setTimeout(work, ms);
          return () => clearTimeout(timer);
        },
      }),
  );
  const { present } = history;
  useEffect(() => keeper.take(present), [keeper, present]);
  useEffect(() => keepsDraft(path), [path]);
  const refresh = useCallback(async () => {
    await Promise.all(kind.lists.map((list) => queries.invalidateQueries({ queryKey: [list] })));
  }, [queries, kind]);
  useEffect(() => {
    const online = (): void => keeper.retry();
    const hidden = (): void => {
      flushStash();
      void keeper.now();
    };
    window.addEventListener("online", online);
    window.addEventListener("pagehide", hidden);
    return () => {
      window.removeEventListener("online", online);
      window.removeEventListener("pagehide", hidden);
      hidden();
      void refresh();
      // Opened again, it is as it is then.
      queries.removeQueries({ queryKey: opening(kind, key).queryKey });
    };
  }, [keeper, queries, kind, key, refresh]);
  const { status } = keeper.state;
  const isSignedIn = Boolean(session.data);
  useEffect(() => {
    // Somebody has to sign in again: the page stays, and goes on as soon as they have.
    if (status === "signed-out") queries.setQueryData(["session"], null);
  }, [status, queries]);
  useEffect(() => {
    if (isSignedIn) keeper.retry();
  }, [isSignedIn, keeper]);

  const edit = useCallback((document: Document, about?: string) => dispatch({ type: "edited", document, about }), []);
  const undo = useCallback(() => dispatch({ type: "undone" }), []);
  const redo = useCallback(() => dispatch({ type: "redone" }), []);
  return useMemo(
    () => ({
      document: present,
      published: opened.published,
      canUndo: history.past.length > 0,
      canRedo: history.future.length > 0,
      keeper,
      edit,
      undo,
      redo,
      refresh,
    }),
    [present, opened.published, history.past.length, history.future.length, keeper, edit, undo, redo, refresh],
  );
}

/** A document that is being edited. */
export interface Edited<Document extends AnyDocument, Body extends DraftOf<Document>> {
  document: Document;
  published: Document | null;
  canUndo: boolean;
  canRedo: boolean;
  keeper: DraftKeeper<Document, Body>;
  /** Changes it; what is about the same as the edit before, such as typing on, is one step with it. */
  edit: (document: Document, about?: string) => void;
  undo: () => void;
  redo: () => void;
  refresh: () => Promise<void>;
}

/** What is edited at first: the draft, with what a closed tab left; undone, it is as published. */
function beginning<Document extends AnyDocument, Body extends DraftOf<Document>>(
  kind: KindOfDocument<Document>,
  path: string,
  { kept, published }: Opened<Document, Body>,
): History<Document> {
  const draft = kept.body.document;
  const left = stashed<Document>(path);
  const present = left ? merge(kind.shape, left.base, left.document, draft).document : draft;
  const before = [published, draft].filter((one): one is Document => one !== null && JSON.stringify(one) !== JSON.stringify(present));
  const distinct = before.filter((one, at) => JSON.stringify(one) !== JSON.stringify(before[at - 1]));
  return began(present, distinct);
}
