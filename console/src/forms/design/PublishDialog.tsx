/** Publishing: what changes for people, in sentences, and what stands against it. */

import { useMutation, useQuery } from "@tanstack/react-query";
import { Alert, App, Modal, Spin } from "antd";
import { useEffect } from "react";

import { call, callWithEtag } from "../../api/call";
import type { Difference, FormDocument, FormSummary } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { itemOf, nameOf } from "./edits";
import { Kept } from "./Kept";
import { type FoundProblem, located } from "./places";
import type { Design } from "./useDesign";
import "../../parts/documents/versions.css";

export function PublishDialog(props: {
  form: string;
  design: Design;
  problems: readonly FoundProblem[];
  select: (key: string) => void;
  close: () => void;
}): React.ReactNode {
  const { form, design, select, close } = props;
  const { message } = App.useApp();
  const { keeper } = design;
  const isKept = keeper.state.status === "kept";
  const isOnTheWay = ["kept", "waiting", "keeping"].includes(keeper.state.status);
  useEffect(() => void keeper.now(), [keeper]);
  const difference = useQuery({
    queryKey: ["difference", form, keeper.kept.etag],
    queryFn: () => call<Difference>(`forms/${form}/difference`),
    enabled: isKept,
    gcTime: 0,
  });
  const publish = useMutation({
    mutationFn: () => callWithEtag<FormSummary>(`forms/${form}/publish`, { method: "POST", etag: keeper.kept.etag }),
    onSuccess: async (answer) => {
      keeper.published(answer);
      await design.refresh();
      void message.success(`Version ${answer.body.published_version} is published.`);
      close();
    },
  });
  const found = difference.data;
  const isBlocked = !found || found.problems.length > 0 || (!found.is_new && found.changes.length === 0);
  return (
    <Modal
      title="Publish"
      open
      onCancel={close}
      okText="Publish"
      okButtonProps={{ disabled: isBlocked || !isKept, loading: publish.isPending }}
      onOk={() => publish.mutate()}
      cancelText="Not yet"
    >
      {difference.isError && <ErrorAlert error={difference.error} />}
      {publish.isError && <ErrorAlert error={publish.error} />}
      {!found && !difference.isError && isOnTheWay && <Spin description="Comparing …" />}
      {!isKept && !isOnTheWay && (
        <p>
          What is on this page is not kept yet: <Kept keeper={keeper} />
        </p>
      )}
      {found && <Problems document={keeper.kept.body.document} found={found} select={select} />}
      {found && <Sentences found={found} kind={design.document.kind} />}
    </Modal>
  );
}

function Problems(props: { document: FormDocument; found: Difference; select: (key: string) => void }): React.ReactNode {
  const { document, found, select } = props;
  if (!found.problems.length) return null;
  return (
    <Alert
      type="error"
      showIcon
      className="space-below"
      title="This stands against publishing:"
      description={
        <ul className="plain">
          {located(document, found.problems).map((problem, at) => {
            const item = itemOf(document, problem.key);
            return (
              <li key={at}>
                <button type="button" className="link" onClick={() => select(problem.key)}>
                  {item ? nameOf(item) : "The form"}
                </button>
                : {problem.detail}
              </li>
            );
          })}
        </ul>
      }
    />
  );
}

function Sentences({ found, kind }: { found: Difference; kind: string }): React.ReactNode {
  if (found.is_new) {
    return <p>Nothing of this form is published yet. From now on {kind === "web" ? "anyone can fill it at its public page" : "staff can fill it"}.</p>;
  }
  if (!found.changes.length) return <p>The draft is as it is published: nothing would change.</p>;
  return (
    <>
      <p>For everybody who fills the form from now on:</p>
      <ul className="changes">
        {found.changes.map((change, at) => (
          <li key={at} className={change.kind}>
            {change.detail}
          </li>
        ))}
      </ul>
      <p className="hint last">Pages that are open now can still be sent as they are.</p>
    </>
  );
}
