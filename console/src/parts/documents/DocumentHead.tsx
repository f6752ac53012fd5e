/** What stands above a document: its name, whether it is kept, who else is there, undo, versions, publish. */

import { HistoryOutlined, RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Tooltip } from "antd";
import { memo, useState } from "react";

import type { Place } from "../../api/call";
import type { Editors } from "../../api/schemas";
import { useSession } from "../../shell/session";
import { ErrorAlert } from "../ErrorAlert";
import { PublishState } from "../PublishState";
import { Kept } from "./Kept";
import type { AnyDocument, DraftOf, KindOfDocument } from "./kind";
import { MergeDialog } from "./MergeDialog";
import { MoreActions } from "./MoreActions";
import { PublishDialog } from "./PublishDialog";
import { useEditors } from "./useEditors";
import type { Edited } from "./useKeeping";
import { useUndoKeys } from "./useUndoKeys";
import { VersionsDrawer } from "./VersionsDrawer";
import "./documents.css";

interface Props<Document extends AnyDocument, Body extends DraftOf<Document>> {
  kind: KindOfDocument<Document>;
  of: Edited<Document, Body>;
  /** What it is, in a sentence. */
  about?: React.ReactNode;
  /** Ways from here. */
  links?: React.ReactNode;
  /** Publishing is of use although nothing differs. */
  again?: boolean | undefined;
  /** What a problem stands at, as a way there; `leave` closes the dialog. */
  at?: (place: Place, leave: () => void) => React.ReactNode;
  /** How a version looks, where that can be shown. */
  look?: (version: number) => React.ReactNode;
}

export function DocumentHead<Document extends AnyDocument, Body extends DraftOf<Document>>(props: Props<Document, Body>): React.ReactNode {
  const { kind, of, about, links, again, at, look } = props;
  const { keeper, document } = of;
  const editors = useEditors(`${kind.path}/${document.key}`, keeper);
  useUndoKeys(of.undo, of.redo);
  const [publishing, setPublishing] = useState(false);
  const [versions, setVersions] = useState(false);
  const [problem, setProblem] = useState<Error | null>(null);
  const state = keeper.kept.body.summary;
  const leave = (): void => setPublishing(false);
  return (
    <>
      <header className="document-head">
        <div className="document-name">
          <h1>{document.title || "Without a name"}</h1>
          <Kept keeper={keeper} />
          {editors.length > 0 && <Others editors={editors} />}
        </div>
        {links && <span className="document-links">{links}</span>}
        <PublishState state={state} />
        <Actions
          canUndo={of.canUndo}
          canRedo={of.canRedo}
          undo={of.undo}
          redo={of.redo}
          setVersions={setVersions}
          setPublishing={setPublishing}
        />
        <MoreActions
          kind={kind}
          document={document.key}
          title={document.title}
          keeper={keeper}
          canTakeBack={state.draft_differs && state.published_version !== null}
          refresh={of.refresh}
          failed={setProblem}
        />
        {about && <p className="document-about">{about}</p>}
      </header>
      {problem && <ErrorAlert error={problem} />}
      {publishing && <PublishDialog kind={kind} of={of} again={again} at={at && ((place) => at(place, leave))} close={leave} />}
      {versions && <VersionsDrawer kind={kind} of={of} look={look} close={() => setVersions(false)} />}
      {keeper.state.status === "conflict" && (
        <MergeDialog conflicts={keeper.state.conflicts} resolve={(choices) => keeper.resolve(choices)} />
      )}
    </>
  );
}

/** By itself, so that it is not made anew with every letter that is typed elsewhere. */
const Actions = memo(function Actions(props: {
  canUndo: boolean;
  canRedo: boolean;
  undo: () => void;
  redo: () => void;
  setVersions: (open: boolean) => void;
  setPublishing: (open: boolean) => void;
}): React.ReactNode {
  return (
    <>
      <Tooltip title="Undo (Ctrl+Z)">
        <Button aria-label="Undo" icon={<UndoOutlined aria-hidden />} disabled={!props.canUndo} onClick={props.undo} />
      </Tooltip>
      <Tooltip title="Redo (Ctrl+Shift+Z)">
        <Button aria-label="Redo" icon={<RedoOutlined aria-hidden />} disabled={!props.canRedo} onClick={props.redo} />
      </Tooltip>
      <Button icon={<HistoryOutlined aria-hidden />} onClick={() => props.setVersions(true)}>
        Versions
      </Button>
      <Button type="primary" onClick={() => props.setPublishing(true)}>
        Publish …
      </Button>
    </>
  );
});

function Others({ editors }: { editors: Editors["editors"] }): React.ReactNode {
  const own = useSession().data?.email;
  const names = [...new Set(editors.map(({ name }) => (name === own ? "you, on another page" : name)))].join(", ");
  return (
    <span role="status" className="others">
      Also here: {names}
    </span>
  );
}
