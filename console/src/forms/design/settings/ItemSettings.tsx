/** Settings of what is chosen: of the form itself, a field, or an address. */

import { CopyOutlined, DeleteOutlined } from "@ant-design/icons";
import { Alert, App, Button } from "antd";

import { duplicated, isSlot, itemOf, nameOf, placeOf, removed } from "../edits";
import type { Design } from "../../kind";
import { FieldSettings } from "./FieldSettings";
import { FormSettings } from "./FormSettings";
import type { SettingsProps } from "./props";
import { SlotSettings } from "./SlotSettings";

export function ItemSettings(props: SettingsProps & { selected: string; select: (key: string) => void }): React.ReactNode {
  const { design, problems, selected, select } = props;
  const { document } = design;
  const item = itemOf(document, selected);
  // By its place: a key that follows the label must not take the focus away.
  const place = placeOf(document, selected);
  const own = problems.filter((problem) => problem.key === (item ? selected : ""));
  return (
    <aside className="settings" aria-label="Settings">
      {item && <ItemBar design={design} itemKey={selected} select={select} />}
      {/* What is wrong with a formula stands below its editor. */}
      {own.filter((problem) => problem.setting !== "formula").map((problem, at) => (
        <Alert key={at} type="error" showIcon className="space-below" title={problem.detail} />
      ))}
      {!item && <FormSettings {...props} />}
      {item && isSlot(item) && <SlotSettings key={place} {...props} slot={item} select={select} />}
      {item && !isSlot(item) && <FieldSettings key={place} {...props} field={item} select={select} />}
    </aside>
  );
}

function ItemBar(props: { design: Design; itemKey: string; select: (key: string) => void }): React.ReactNode {
  const { design, itemKey, select } = props;
  const { message } = App.useApp();
  const { document, edit } = design;
  const item = itemOf(document, itemKey);
  if (!item) return null;
  const copy = (): void => {
    const made = duplicated(document, itemKey);
    edit(made.document);
    select(made.key);
  };
  const remove = (): void => {
    edit(removed(document, itemKey));
    select("");
    void message.open({
      type: "info",
      duration: 8,
      content: (
        <>
          “{nameOf(item)}” is removed.{" "}
          <Button type="link" size="small" onClick={design.undo}>
            Undo
          </Button>
        </>
      ),
    });
  };
  return (
    <div className="settings-bar">
      <h2>{nameOf(item)}</h2>
      <Button size="small" icon={<CopyOutlined aria-hidden />} onClick={copy}>
        Duplicate
      </Button>
      <Button size="small" danger icon={<DeleteOutlined aria-hidden />} onClick={remove}>
        Remove
      </Button>
    </div>
  );
}
