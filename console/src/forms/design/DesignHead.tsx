/** What stands above: the form's name, whether it is kept, who else is there, undo, versions, publish. */

import { HistoryOutlined, RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Tooltip } from "antd";
import { memo, useState } from "react";
import { Link } from "react-router";

import type { Editors } from "../../api/schemas";
import { counted } from "../../parts/formatting";
import { PublishState } from "../../parts/PublishState";
import { useSession } from "../../shell/session";
import { Kept } from "./Kept";
import type { FoundProblem } from "./places";
import { PublishDialog } from "./PublishDialog";
import type { Design } from "./useDesign";
import { VersionsDrawer } from "./VersionsDrawer";

export function DesignHead(props: {
  form: string;
  design: Design;
  editors: Editors["editors"];
  problems: readonly FoundProblem[];
  select: (key: string) => void;
}): React.ReactNode {
  const { form, design, editors, problems, select } = props;
  const { keeper } = design;
  const [publishing, setPublishing] = useState(false);
  const [versions, setVersions] = useState(false);
  const state = keeper.kept.body.summary;
  return (
    <header className="design-head">
      <div className="design-name">
        <h1>{design.document.title}</h1>
        <Kept keeper={keeper} />
        {editors.length > 0 && <Others editors={editors} />}
      </div>
      <span className="design-links">
        <Link to={`/records?form=${form}`}>{counted(state.record_count, "record")}</Link>
        {state.kind === "web" && state.published_version !== null && <a href={`/f/${form}`}>public page</a>}
      </span>
      <PublishState state={state} />
      <Actions
        canUndo={design.canUndo}
        canRedo={design.canRedo}
        undo={design.undo}
        redo={design.redo}
        setVersions={setVersions}
        setPublishing={setPublishing}
      />
      {publishing && (
        <PublishDialog
          form={form}
          design={design}
          problems={problems}
          select={(key) => {
            select(key);
            setPublishing(false);
          }}
          close={() => setPublishing(false)}
        />
      )}
      {versions && <VersionsDrawer form={form} design={design} close={() => setVersions(false)} />}
    </header>
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
