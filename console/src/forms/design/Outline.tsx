/** Everything on the form, row by row: to be chosen, moved by mouse and by keyboard, and added to. */

import { DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useCallback, useDeferredValue, useMemo, useRef, useState } from "react";

import { AddDialog } from "./AddDialog";
import { isSlot, itemsOf, moved, nameOf, placeOf, typeOf } from "./edits";
import { OutlineRow } from "./OutlineRow";
import type { FoundProblem } from "./places";
import type { Design } from "../kind";

// The same objects each time: another one makes every row anew.
const BY_POINTER = { activationConstraint: { distance: 4 } };
const BY_KEYBOARD = { coordinateGetter: sortableKeyboardCoordinates };

// As many as a tall screen shows: the rows below them are made once these can be used.
const AT_FIRST = 40;

export function Outline(props: {
  design: Design;
  problems: readonly FoundProblem[];
  selected: string;
  select: (key: string) => void;
}): React.ReactNode {
  const { design, problems, selected, select } = props;
  const { document, edit } = design;
  const [addAt, setAddAt] = useState<number | null>(null);
  const items = useMemo(() => itemsOf(document), [document]);
  const made = useDeferredValue(items.length, AT_FIRST);
  const faulty = useMemo(() => new Set(problems.map((problem) => problem.key)), [problems]);
  const sensors = useSensors(
    useSensor(PointerSensor, BY_POINTER),
    useSensor(KeyboardSensor, BY_KEYBOARD),
  );
  const ended = ({ active, over }: DragEndEvent): void => {
    if (over && over.id !== active.id) edit(moved(document, String(active.id), placeOf(document, String(over.id))));
  };
  // Rows stay as they are while a label is typed: what they call looks at the newest document.
  const latest = useRef(document);
  latest.current = document;
  const move = useCallback(
    (key: string, by: 1 | -1) => {
      const to = placeOf(latest.current, key) + by;
      if (to >= 0 && to < latest.current.fields.length) edit(moved(latest.current, key, to));
    },
    [edit],
  );
  const addBelow = useCallback((key: string) => setAddAt(placeOf(latest.current, key) + 1), []);
  const joined = items.map((item) => item.key).join(" ");
  const ids = useMemo(() => joined.split(" ").filter(Boolean), [joined]);
  return (
    <nav className="outline" aria-label="Outline">
      <button type="button" className="outline-form" aria-current={selected === ""} onClick={() => select("")}>
        {document.title}
        {faulty.has("") && <Fault />}
      </button>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={ended}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className="outline-rows">
            {items.slice(0, made).map((item) => (
              <OutlineRow
                key={item.key}
                itemKey={item.key}
                type={typeOf(item)}
                name={nameOf(item)}
                isConditional={Boolean(item.shown_when)}
                isFaulty={faulty.has(item.key)}
                isSelected={selected === item.key}
                select={select}
                move={move}
                addBelow={addBelow}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {items.length === 0 && <p className="hint">There is nothing on the form yet.</p>}
      <Button block type="dashed" icon={<PlusOutlined aria-hidden />} onClick={() => setAddAt(document.fields.length)}>
        Add something
      </Button>
      {addAt !== null && (
        <AddDialog
          document={document}
          at={addAt}
          close={() => setAddAt(null)}
          add={(next, key) => {
            edit(next);
            select(key);
            setAddAt(null);
          }}
          countries={items.find(isSlot)?.countries ?? null}
        />
      )}
    </nav>
  );
}

export function Fault(): React.ReactNode {
  return <span className="fault"><span className="visually-hidden">something is wrong here</span></span>;
}
