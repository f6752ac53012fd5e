/** Published versions: who, when, what; each can be looked at and gone back to. */

import { useMutation, useQuery } from "@tanstack/react-query";
import { App, Button, Drawer, Empty, Spin } from "antd";
import { useState } from "react";

import { call } from "../../api/call";
import type { FormAnswer, FormSummary, FormVersion } from "../../api/schemas";
import { counted } from "../../parts/formatting";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { StateTag } from "../../parts/StateTag";
import { readable } from "../../parts/times";
import { PastForm } from "./PastForm";
import type { Design } from "./useDesign";

export function VersionsDrawer(props: { form: string; design: Design; close: () => void }): React.ReactNode {
  const { form, design, close } = props;
  const { message, modal } = App.useApp();
  const [looked, setLooked] = useState<number | null>(null);
  const versions = useQuery({
    queryKey: ["versions", form, design.keeper.kept.body.form.published_version],
    queryFn: () => call<{ versions: FormVersion[] }>(`forms/${form}/versions`),
    gcTime: 0,
  });
  const restore = useMutation({
    mutationFn: (version: number) => call<FormSummary>(`forms/${form}/restore`, { method: "POST", body: { version } }),
    onSuccess: async (summary) => {
      await design.keeper.catchUp();
      design.keeper.published(summary);
      await Promise.all([design.refresh(), versions.refetch()]);
      void message.success(summary.published_version === null ? "Nobody can fill the form any more." : `Version ${summary.published_version} holds.`);
    },
  });
  const ask = (version: number): void =>
    void modal.confirm({
      title: version ? `Go back to version ${version}?` : "Close the form?",
      content: version
        ? "People meet that version from now on. Your draft stays, where it differs from what is published."
        : "Nobody can fill it any more, until a version is published again. Records stay.",
      okText: version ? "Go back" : "Close it",
      cancelText: "Leave it as it is",
      icon: null,
      onOk: () => restore.mutateAsync(version).catch(() => undefined),
    });
  return (
    <Drawer title="Versions" open onClose={close} size={720} destroyOnHidden>
      {restore.isError && <ErrorAlert error={restore.error} />}
      {versions.isError && <ErrorAlert error={versions.error} />}
      {versions.isPending && <Spin description="Loading …" />}
      {versions.data?.versions.length === 0 && <Empty description="Nothing has been published yet." />}
      <ol className="versions">
        {versions.data?.versions.map((version) => (
          <li key={version.number}>
            <div className="version-head">
              <h3>Version {version.number}</h3>
              {version.in_force && <StateTag tone="fine">holds now</StateTag>}
              <span className="hint">
                {readable(version.published_at)} by {version.published_by} · {counted(version.records, "record")}
              </span>
            </div>
            <ul className="changes">
              {version.changes.map((sentence, at) => (
                <li key={at}>{sentence}</li>
              ))}
              {version.more_changes > 0 && <li className="hint">and {version.more_changes} more</li>}
            </ul>
            <span className="row-actions">
              <Button size="small" aria-expanded={looked === version.number} onClick={() => setLooked(looked === version.number ? null : version.number)}>
                {looked === version.number ? "Hide it" : "Look at it"}
              </Button>
              {!version.in_force && (
                <Button size="small" onClick={() => ask(version.number)}>
                  Go back to it
                </Button>
              )}
            </span>
            {looked === version.number && <Looked form={form} version={version.number} />}
          </li>
        ))}
      </ol>
      {versions.data?.versions.some((version) => version.in_force) && (
        <Button danger onClick={() => ask(0)}>
          Close the form
        </Button>
      )}
    </Drawer>
  );
}

function Looked({ form, version }: { form: string; version: number }): React.ReactNode {
  const answer = useQuery({
    queryKey: ["version", form, version],
    queryFn: () => call<FormAnswer>(`forms/${form}/versions/${version}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (answer.isError) return <ErrorAlert error={answer.error} />;
  return answer.data ? <PastForm form={form} answer={answer.data} /> : <Spin />;
}
