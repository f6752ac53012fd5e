/** Published versions of a document: who, when, what; each can be gone back to. */

import { useMutation, useQuery } from "@tanstack/react-query";
import { App, Button, Drawer, Empty, Spin } from "antd";
import { useState } from "react";

import { call, callWithEtag } from "../../api/call";
import type { DocumentVersion } from "../../api/schemas";
import { ErrorAlert } from "../ErrorAlert";
import { counted } from "../formatting";
import { StateTag } from "../StateTag";
import { readable } from "../times";
import type { AnyDocument, DraftOf, Drafted, KindOfDocument } from "./kind";
import type { Edited } from "./useKeeping";
import "./documents.css";

interface Props<Document extends AnyDocument, Body extends DraftOf<Document>> {
  kind: KindOfDocument<Document>;
  of: Edited<Document, Body>;
  close: () => void;
  /** How a version looks, where that can be shown. */
  look?: ((version: number) => React.ReactNode) | undefined;
}

export function VersionsDrawer<Document extends AnyDocument, Body extends DraftOf<Document>>(props: Props<Document, Body>): React.ReactNode {
  const { kind, of, close, look } = props;
  const { keeper, refresh } = of;
  const path = `${kind.path}/${of.document.key}`;
  const { message, modal } = App.useApp();
  const [looked, setLooked] = useState<number | null>(null);
  const versions = useQuery({
    queryKey: ["versions", path, keeper.kept.etag],
    queryFn: () => call<{ versions: DocumentVersion[] }>(`${path}/versions?limit=200`),
    gcTime: 0,
  });
  const restore = useMutation({
    mutationFn: async (version: number) => {
      if (!(await keeper.settle())) throw new Error("What is on this page is not kept yet; it says above why.");
      return callWithEtag<Drafted>(`${path}/restore`, { method: "POST", body: { version }, etag: keeper.kept.etag });
    },
    onSuccess: async (answer) => {
      // The draft follows where it was as published; else it stays.
      await keeper.catchUp("own");
      keeper.published(answer);
      await refresh();
      const number = answer.body.published_version;
      void message.success(number === null ? kind.none.done : `Version ${number} holds.`);
    },
  });
  const ask = (version: number): void =>
    void modal.confirm({
      title: version ? `Go back to version ${version}?` : kind.none.question,
      content: version ? `${kind.restored} Your draft stays, where it differs from what is published.` : kind.none.says,
      okText: version ? "Go back" : kind.none.ok,
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
            <VersionHead version={version} />
            <span className="row-actions">
              {look && (
                <Button size="small" aria-expanded={looked === version.number} onClick={() => setLooked(looked === version.number ? null : version.number)}>
                  {looked === version.number ? "Hide it" : "Look at it"}
                </Button>
              )}
              {!version.in_force && (
                <Button size="small" onClick={() => ask(version.number)}>
                  Go back to it
                </Button>
              )}
            </span>
            {look && looked === version.number && look(version.number)}
          </li>
        ))}
      </ol>
      {versions.data?.versions.some((version) => version.in_force) && (
        <Button danger onClick={() => ask(0)}>
          {kind.none.button}
        </Button>
      )}
    </Drawer>
  );
}

function VersionHead({ version }: { version: DocumentVersion }): React.ReactNode {
  const made = version.records === null ? "" : ` · ${counted(version.records, "record")}`;
  return (
    <>
      <div className="version-head">
        <h3>Version {version.number}</h3>
        {version.in_force && <StateTag tone="fine">holds now</StateTag>}
        <span className="hint">
          {readable(version.published_at)} by {version.published_by}
          {made}
        </span>
      </div>
      <ul className="changes">
        {version.changes.map((sentence, at) => (
          <li key={at}>{sentence}</li>
        ))}
        {version.more_changes > 0 && <li className="hint">and {version.more_changes} more</li>}
      </ul>
    </>
  );
}
