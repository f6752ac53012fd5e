/** What can be done with a document as a whole: a copy, back to what is published, deleting. */

import { useMutation } from "@tanstack/react-query";
import { App, Button, Dropdown } from "antd";
import { memo } from "react";
import { useNavigate } from "react-router";

import { call, callWithEtag } from "../../api/call";
import { everyPage } from "../../api/pages";
import type { Drafted } from "./kind";

interface Props {
  /** What is said and asked of documents of this kind. */
  kind: { path: string; plural: string; page: string; deleted: string };
  document: string;
  title: string;
  keeper: {
    kept: { etag: string | null };
    settle: () => Promise<boolean>;
    catchUp: (whose: "own") => Promise<void>;
  };
  canTakeBack: boolean;
  refresh: () => Promise<void>;
  failed: (error: Error) => void;
}

/** By itself, so that it is not made anew with every letter that is typed elsewhere. */
export const MoreActions = memo(function MoreActions(props: Props): React.ReactNode {
  const { kind, document, title, keeper, canTakeBack, refresh, failed } = props;
  const path = `${kind.path}/${document}`;
  const navigate = useNavigate();
  const { modal, message } = App.useApp();
  /** Nothing is done with what is not kept yet. */
  const settled = async (): Promise<void> => {
    if (!(await keeper.settle())) throw new Error("What is on this page is not kept yet; it says above why.");
  };
  const deleting = useMutation({
    mutationFn: async () => {
      await settled();
      await call(path, { method: "DELETE", etag: keeper.kept.etag });
    },
    onError: failed,
    onSuccess: async () => {
      void message.success(`“${title}” is deleted.`);
      await navigate(kind.page);
      await refresh();
    },
  });
  const takingBack = useMutation({
    mutationFn: async () => {
      await settled();
      return callWithEtag<Drafted>(`${path}/take-back`, { method: "POST", etag: keeper.kept.etag });
    },
    onError: failed,
    onSuccess: async () => {
      await keeper.catchUp("own");
      await refresh();
    },
  });
  const copying = useMutation({
    mutationFn: async () => {
      await settled();
      const listed = await everyPage<{ key: string }>(kind.path, kind.plural);
      const key = freeKey(document, new Set(listed.map((one) => one.key)));
      await call(`${path}/copy`, { method: "POST", body: { key, title: `${title} (copy)`.slice(0, 200) } });
      return key;
    },
    onError: failed,
    onSuccess: async (key) => {
      await navigate(`${kind.page}/${key}`);
      await refresh();
    },
  });
  const ask = (question: string, content: string, okText: string, work: () => Promise<unknown>, danger = false): void =>
    void modal.confirm({
      title: question, content, okText, okButtonProps: { danger }, cancelText: "Leave it as it is", autoFocusButton: "cancel", icon: null,
      onOk: () => work().catch(() => undefined),
    });
  const items = [
    { key: "copy", label: "Copy", onClick: () => copying.mutate() },
    {
      key: "back",
      label: "Back to what is published",
      disabled: !canTakeBack,
      onClick: () => ask("Take the draft back to what is published?", "All that was changed since then is gone.", "Take it back", takingBack.mutateAsync),
    },
    {
      key: "delete",
      label: "Delete …",
      danger: true,
      onClick: () => ask(`Delete “${title}”?`, kind.deleted, "Delete it", deleting.mutateAsync, true),
    },
  ];
  return (
    <Dropdown menu={{ items }} trigger={["click"]} placement="bottomRight">
      <Button aria-haspopup="menu" loading={copying.isPending || deleting.isPending || takingBack.isPending}>
        More
      </Button>
    </Dropdown>
  );
});

/** A key that nothing has yet, made of another. */
export function freeKey(key: string, taken: ReadonlySet<string>): string {
  const begin = `${key.slice(0, 50)}-copy`;
  let free = begin;
  for (let number = 2; taken.has(free); number += 1) free = `${begin}-${number}`;
  return free;
}
