/** Publishing: what changes for people, in sentences, and what stands against it. */

import { useMutation, useQuery } from "@tanstack/react-query";
import { Alert, App, Modal, Spin } from "antd";
import { useEffect } from "react";

import { type Place, call, callWithEtag } from "../../api/call";
import type { Difference } from "../../api/schemas";
import { ErrorAlert } from "../ErrorAlert";
import { Kept } from "./Kept";
import type { AnyDocument, DraftOf, Drafted, KindOfDocument } from "./kind";
import type { Edited } from "./useKeeping";
import "./documents.css";

interface Props<Document extends AnyDocument, Body extends DraftOf<Document>> {
  kind: KindOfDocument<Document>;
  of: Edited<Document, Body>;
  /** Publishing is of use although nothing differs. */
  again?: boolean | undefined;
  /** What a problem stands at, as a way there. */
  at?: ((place: Place) => React.ReactNode) | undefined;
  close: () => void;
}

export function PublishDialog<Document extends AnyDocument, Body extends DraftOf<Document>>(props: Props<Document, Body>): React.ReactNode {
  const { kind, of, again, at, close } = props;
  const { message } = App.useApp();
  const { keeper, document } = of;
  const path = `${kind.path}/${document.key}`;
  const isKept = keeper.state.status === "kept";
  const isOnTheWay = ["kept", "waiting", "keeping"].includes(keeper.state.status);
  useEffect(() => void keeper.now(), [keeper]);
  const difference = useQuery({
    queryKey: ["difference", path, keeper.kept.etag],
    queryFn: () => call<Difference>(`${path}/difference`),
    enabled: isKept,
    gcTime: 0,
  });
  const publish = useMutation({
    mutationFn: () => callWithEtag<Drafted>(`${path}/publish`, { method: "POST", etag: keeper.kept.etag }),
    onSuccess: async (answer) => {
      keeper.published(answer);
      await Promise.all([keeper.catchUp("own"), of.refresh()]);
      void message.success(`Version ${answer.body.published_version} is published.`);
      close();
    },
  });
  const found = difference.data;
  const isOfUse = Boolean(again) || (found && (found.is_new || found.changes.length > 0));
  const isBlocked = !found || found.problems.length > 0 || !isOfUse;
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
      {found && <Problems places={found.problems} at={at} />}
      {found && <Sentences found={found} kind={kind} document={document} />}
    </Modal>
  );
}

function Problems({ places, at }: { places: readonly Place[]; at?: ((place: Place) => React.ReactNode) | undefined }): React.ReactNode {
  if (!places.length) return null;
  return (
    <Alert
      type="error"
      showIcon
      className="space-below"
      title="This stands against publishing:"
      description={
        <ul className="plain">
          {places.map((place) => (
            <li key={place.pointer + place.detail}>
              {at && <>{at(place)}: </>}
              {place.detail}
            </li>
          ))}
        </ul>
      }
    />
  );
}

function Sentences<Document extends AnyDocument>(props: { found: Difference; kind: KindOfDocument<Document>; document: Document }): React.ReactNode {
  const { found, kind, document } = props;
  const { first, from, note } = kind.publishing;
  if (!found.is_new && !found.changes.length) return <p>The draft is as it is published: nothing would change.</p>;
  return (
    <>
      <p>{found.is_new ? first(document) : from}</p>
      {found.changes.length > 0 && (
        <ul className="changes">
          {found.changes.map((change, at) => (
            <li key={at} className={change.kind}>
              {change.detail}
            </li>
          ))}
        </ul>
      )}
      {!found.is_new && note && <p className="hint last">{note}</p>}
    </>
  );
}
