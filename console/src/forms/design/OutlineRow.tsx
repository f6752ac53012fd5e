import { HolderOutlined, PlusOutlined } from "@ant-design/icons";
import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { memo } from "react";

import { TYPE_ICONS } from "./typeIcons";

interface Row {
  itemKey: string;
  type: string;
  name: string;
  isConditional: boolean;
  isFaulty: boolean;
  isSelected: boolean;
  select: (key: string) => void;
  move: (key: string, by: 1 | -1) => void;
  addBelow: (key: string) => void;
}

/** One row of the outline; Alt with an arrow key moves it. */
export const OutlineRow = memo(function OutlineRow(row: Row): React.ReactNode {
  const { itemKey, type, name, isConditional, isFaulty, isSelected, select, move, addBelow } = row;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id: itemKey });
  const pressed = (event: React.KeyboardEvent): void => {
    if (!event.altKey || !["ArrowUp", "ArrowDown"].includes(event.key)) return;
    event.preventDefault();
    move(itemKey, event.key === "ArrowUp" ? -1 : 1);
  };
  const Icon = TYPE_ICONS[type] ?? TYPE_ICONS.text;
  return (
    <li
      ref={setNodeRef}
      className={["outline-row", type, isSelected ? "selected" : "", isDragging ? "dragging" : ""].join(" ")}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button type="button" ref={setActivatorNodeRef} className="outline-handle" {...attributes} {...listeners} aria-label={`Move ${name}`}>
        <HolderOutlined aria-hidden />
      </button>
      <button type="button" className="outline-name" aria-current={isSelected} onClick={() => select(itemKey)} onKeyDown={pressed}>
        {Icon && <Icon aria-hidden />}
        <span className="outline-text">{name}</span>
        {isConditional && <span className="hint" title="Shown on a condition" aria-hidden>if</span>}
        {isFaulty && <span className="fault"><span className="visually-hidden">something is wrong here</span></span>}
      </button>
      <button type="button" className="outline-add" aria-label={`Add below ${name}`} onClick={() => addBelow(itemKey)}>
        <PlusOutlined aria-hidden />
      </button>
    </li>
  );
});
