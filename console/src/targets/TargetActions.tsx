/** What can be done with a target as a whole: copied, taken back to what is published, deleted. */

import { useMutation } from "@tanstack/react-query";
import { App, Button } from "antd";
import { useNavigate } from "react-router";

import { call, callWithEtag } from "../api/call";
import { ErrorAlert } from "../parts/ErrorAlert";
import { type AnyTarget, useTargets } from "./useTargets";

interface Actions {
  target: string;
  document: AnyTarget;
  /** Whether the draft is another than what is published. */
  differs: boolean;
  /** What was changed on the page is let go. */
  taken: () => void;
  refresh: () => Promise<void>;
}

export function TargetActions({ target, document, differs, taken, refresh }: Actions): React.ReactNode {
  const navigate = useNavigate();
  const { modal } = App.useApp();
  const targets = useTargets();
  const removing = useMutation({
    mutationFn: () => call(`targets/${target}`, { method: "DELETE" }),
    onSuccess: async () => {
      await navigate("/targets");
      await refresh();
    },
  });
  const takingBack = useMutation({
    mutationFn: () => call(`targets/${target}/take-back`, { method: "POST" }),
    onSuccess: async () => {
      await refresh();
      taken();
    },
  });
  const copying = useMutation({
    mutationFn: (copy: AnyTarget) => callWithEtag(`targets/${copy.key}/draft`, { method: "PUT", body: copy }),
    onSuccess: async (_, copy) => {
      await navigate(`/targets/${copy.key}`);
      await refresh();
    },
  });
  const copy = (): void => {
    const keys = new Set((targets.data?.targets ?? []).map((one) => one.key));
    let key = `${target.slice(0, 50)}-copy`;
    for (let number = 2; keys.has(key); number += 1) key = `${target.slice(0, 50)}-copy-${number}`;
    copying.mutate({ ...document, key, title: `${document.title} (copy)`.slice(0, 200) });
  };
  const askRemoval = (): void =>
    void modal.confirm({
      title: `Delete “${document.title}” with all its versions?`,
      content: "Pages that attach to it go on without a finder; the desktop agent knows its screens no more.",
      okText: "Delete it",
      okButtonProps: { danger: true },
      onOk: () => removing.mutateAsync().catch(() => undefined),
    });
  const askTakingBack = (): void =>
    void modal.confirm({
      title: "Take the draft back to what is published?",
      content: "All that was changed since then is gone.",
      okText: "Take it back",
      onOk: () => takingBack.mutateAsync().catch(() => undefined),
    });
  const error = removing.error ?? takingBack.error ?? copying.error;
  return (
    <>
      {error && <ErrorAlert error={error} />}
      <Button loading={copying.isPending} onClick={copy}>
        Copy
      </Button>
      {differs && <Button onClick={askTakingBack}>Back to what is published</Button>}
      <Button danger onClick={askRemoval}>
        Delete
      </Button>
    </>
  );
}
