/** The state of a form that is being made: its document with undo and redo, kept as one works. */

import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";

import { callWithEtag } from "../../api/call";
import type { Draft, FormDocument } from "../../api/schemas";
import { useSession } from "../../shell/session";
import { type History, began, edited, merged, redone, undone } from "./history";
import { DraftKeeper } from "./keeper";
import { merge } from "./merge";
import { type Opened, answered, opening } from "./opening";
import { flushStash, stash, stashed } from "./stash";

type Action =
  | { type: "edited"; document: FormDocument; about: string }
  | { type: "undone" }
  | { type: "redone" }
  | { type: "came"; document: FormDocument };

function reduce(history: History<FormDocument>, action: Action): History<FormDocument> {
  if (action.type === "undone") return undone(history);
  if (action.type === "redone") return redone(history);
  if (action.type === "came") return merged(history, action.document);
  return edited(history, action.document, action.about);
}

export function useDesign(form: string, opened: Opened, cameIn: (sentence: string) => void) {
  const queries = useQueryClient();
  const session = useSession();
  const [, show] = useReducer((count: number) => count + 1, 0);
  const said = useRef(cameIn);
  said.current = cameIn;
  const [history, dispatch] = useReducer(reduce, null, () => beginning(form, opened));
  const [keeper] = useState(
    () =>
      new DraftKeeper(opened.kept, {
        put: (document, etag) => answered(callWithEtag<Draft>(`forms/${form}/draft?unfinished=true`, { method: "PUT", body: document, etag })),
        get: () => answered(callWithEtag<Draft>(`forms/${form}/draft`)),
        stash: (left) => stash(form, left),
        changed: show,
        cameIn: (document) => {
          dispatch({ type: "came", document });
          said.current("Somebody else's changes have come in.");
        },
        later: (work, ms) => {
          const timer = setTimeout(work, ms);
          return () => clearTimeout(timer);
        },
      }),
  );
  const { present } = history;
  useEffect(() => keeper.take(present), [keeper, present]);
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
      void queries.invalidateQueries({ queryKey: ["forms"] });
      // Opened again, it is as it is then.
      queries.removeQueries({ queryKey: opening(form).queryKey });
    };
  }, [keeper, queries, form]);
  const { status } = keeper.state;
  const isSignedIn = Boolean(session.data);
  useEffect(() => {
    // Somebody has to sign in again: the page stays, and goes on as soon as they have.
    if (status === "signed-out") queries.setQueryData(["session"], null);
  }, [status, queries]);
  useEffect(() => {
    if (isSignedIn) keeper.retry();
  }, [isSignedIn, keeper]);

  const edit = useCallback((document: FormDocument, about = "") => dispatch({ type: "edited", document, about }), []);
  const undo = useCallback(() => dispatch({ type: "undone" }), []);
  const redo = useCallback(() => dispatch({ type: "redone" }), []);
  const refresh = useCallback(() => queries.invalidateQueries({ queryKey: ["forms"] }), [queries]);
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

export type Design = ReturnType<typeof useDesign>;

/** What is edited at first: the draft, with what a closed tab left; undone, it is as published. */
function beginning(form: string, { kept, published }: Opened): History<FormDocument> {
  const draft = kept.body.document;
  const left = stashed(form);
  const present = left ? merge(left.base, left.document, draft).document : draft;
  const before = [published, draft].filter((one): one is FormDocument => one !== null && JSON.stringify(one) !== JSON.stringify(present));
  const distinct = before.filter((one, at) => JSON.stringify(one) !== JSON.stringify(before[at - 1]));
  return began(present, distinct);
}
