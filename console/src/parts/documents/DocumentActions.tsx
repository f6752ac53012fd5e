/** What can be done with a document as a whole: its versions, a copy, back to what is published, deleting. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";

import { call } from "../../api/call";
import { everyPage } from "../../api/pages";
import { ErrorAlert } from "../ErrorAlert";
import type { Drafted } from "../useDraft";
import type { KindOfDocument } from "./kind";
import { VersionsDrawer } from "./VersionsDrawer";

interface Props {
  kind: KindOfDocument;
  document: { key: string; title: string };
  state: Drafted;
  /** The state of the document that is looked at. */
  etag: string | null;
  /** The draft was taken back: what was changed on the page is let go. */
  replaced: () => void;
}

export function DocumentActions({ kind, document, state, etag, replaced }: Props): React.ReactNode {
  const path = `${kind.path}/${document.key}`;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { modal } = App.useApp();
  const [showsVersions, showVersions] = useState(false);
  const refresh = async (): Promise<void> => {
    await Promise.all([["draft", path], ...kind.lists.map((list) => [list])].map((queryKey) => queries.invalidateQueries({ queryKey })));
  };
  const deleting = useMutation({
    mutationFn: () => call(path, { method: "DELETE", etag }),
    onSuccess: async () => {
      await navigate(kind.page);
      await refresh();
    },
  });
  const takingBack = useMutation({
    mutationFn: () => call(`${path}/take-back`, { method: "POST", etag }),
    onSuccess: async () => {
      await refresh();
      replaced();
    },
  });
  const copying = useMutation({
    mutationFn: async () => {
      const listed = await everyPage<{ key: string }>(kind.path, kind.plural);
      const key = freeKey(document.key, new Set(listed.map((one) => one.key)));
      await call(`${path}/copy`, { method: "POST", body: { key, title: `${document.title} (copy)`.slice(0, 200) } });
      return key;
    },
    onSuccess: async (key) => {
      await navigate(`${kind.page}/${key}`);
      await refresh();
    },
  });
  const ask = (title: string, content: string, okText: string, work: () => Promise<unknown>, danger = false): void =>
    void modal.confirm({ title, content, okText, okButtonProps: { danger }, onOk: () => work().catch(() => undefined) });
  const error = deleting.error ?? takingBack.error ?? copying.error;
  return (
    <>
      {error && <ErrorAlert error={error} />}
      <Button onClick={() => showVersions(true)}>Versions</Button>
      <Button loading={copying.isPending} onClick={() => copying.mutate()}>
        Copy
      </Button>
      {state.draft_differs && state.published_version !== null && (
        <Button onClick={() => ask("Take the draft back to what is published?", "All that was changed since then is gone.", "Take it back", takingBack.mutateAsync)}>
          Back to what is published
        </Button>
      )}
      <Button danger onClick={() => ask(`Delete “${document.title}”?`, kind.deleted, "Delete it", deleting.mutateAsync, true)}>
        Delete
      </Button>
      {showsVersions && (
        <VersionsDrawer
          kind={kind}
          document={document.key}
          etag={etag}
          restored={refresh}
          close={() => showVersions(false)}
        />
      )}
    </>
  );
}

/** A key that nothing has yet, made of another. */
export function freeKey(key: string, taken: ReadonlySet<string>): string {
  const begin = `${key.slice(0, 50)}-copy`;
  let free = begin;
  for (let number = 2; taken.has(free); number += 1) free = `${begin}-${number}`;
  return free;
}
