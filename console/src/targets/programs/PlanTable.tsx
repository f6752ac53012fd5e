/** The table of a plan: which part goes in, whether its field is emptied, what comes after it. */

import { DeleteOutlined, HolderOutlined, PlusOutlined } from "@ant-design/icons";
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Button, Checkbox, Empty, Input, InputNumber, Select } from "antd";

import type { Part, Plan, ProgramDocument, Row } from "./usePrograms";
import { CLEARS, THEN } from "./words";

export function PlanTable(props: { document: ProgramDocument; at: number; change: (plan: Plan) => void }): React.ReactNode {
  const { document, at, change } = props;
  const plan = document.addresses[at]!.plan;
  const rows = plan.table;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  const put = (table: Row[]): void => change({ ...plan, table });
  const move = (from: number, to: number): void => put(moved(rows, from, to));
  const unused = document.parts.find((part) => !rows.some((row) => row.part === part.key)) ?? document.parts[0];
  return (
    <>
      {rows.length === 0 && <Empty description="Nothing is written yet: add the part that goes into the first field." />}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={({ active, over }) => over && move(Number(active.id) - 1, Number(over.id) - 1)}>
        <SortableContext items={rows.map((_, place) => place + 1)} strategy={verticalListSortingStrategy}>
          <ol className="plan-rows">
            {rows.map((row, place) => (
              <PlanRow
                key={place}
                row={row}
                at={place}
                isFirst={place === 0 || rows[place - 1]?.then === "next"}
                parts={document.parts}
                change={(next) => put(rows.with(place, next))}
                move={move}
                remove={() => put(rows.filter((_, other) => other !== place))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Button icon={<PlusOutlined aria-hidden />} disabled={!unused} onClick={() => unused && put([...rows, { part: unused.key, clear: "line", then: "next", times: 1, keep: false, field: "" }])}>
        Add a row
      </Button>
    </>
  );
}

interface RowProps {
  row: Row;
  at: number;
  /** Whether it is the first one of its field. */
  isFirst: boolean;
  parts: Part[];
  change: (row: Row) => void;
  move: (from: number, to: number) => void;
  remove: () => void;
}

function PlanRow({ row, at, isFirst, parts, change, move, remove }: RowProps): React.ReactNode {
  const name = `row ${at + 1}`;
  const sortable = useSortable({ id: at + 1 });
  const pressed = (event: React.KeyboardEvent): void => {
    if (!event.altKey || !["ArrowUp", "ArrowDown"].includes(event.key)) return;
    event.preventDefault();
    move(at, at + (event.key === "ArrowUp" ? -1 : 1));
  };
  return (
    <li ref={sortable.setNodeRef} className={`plan-row ${isFirst ? "new-field" : ""}`} style={{ transform: CSS.Translate.toString(sortable.transform), transition: sortable.transition }} onKeyDown={pressed}>
      <button type="button" className="rule-handle" ref={sortable.setActivatorNodeRef} {...sortable.attributes} {...sortable.listeners} aria-label={`Move ${name}`}>
        <HolderOutlined aria-hidden />
        {at + 1}
      </button>
      <Select aria-label={`Part of ${name}`} value={row.part} options={parts.map((one) => ({ value: one.key, label: one.label ?? one.key }))} popupMatchSelectWidth={false} onChange={(part) => change({ ...row, part })} />
      {isFirst ? (
        <>
          <Select aria-label={`How the field of ${name} is emptied`} value={row.clear} options={CLEARS} popupMatchSelectWidth={false} onChange={(clear) => change({ ...row, clear })} />
          <Input aria-label={`Name of the field of ${name}`} placeholder="Name on the screen" value={row.field} maxLength={200} onChange={(event) => change({ ...row, field: event.target.value })} />
        </>
      ) : (
        <span className="hint same-field">in the same field</span>
      )}
      <span className="then">
        then
        <Select aria-label={`What comes after ${name}`} value={row.then} options={THEN} popupMatchSelectWidth={false} onChange={(then) => change({ ...row, then })} />
        {row.then === "next" && <InputNumber aria-label={`How many fields further after ${name}`} min={1} max={50} value={row.times} onChange={(times) => change({ ...row, times: times ?? 1 })} />}
        {["line", "comma", "blank"].includes(row.then) && (
          <Checkbox checked={row.keep} onChange={(event) => change({ ...row, keep: event.target.checked })}>
            even if empty
          </Checkbox>
        )}
      </span>
      <Button aria-label={`Take out ${name}`} icon={<DeleteOutlined aria-hidden />} onClick={remove} />
    </li>
  );
}

/** A list with one entry moved; unchanged where there is no such place. */
export function moved<T>(list: T[], from: number, to: number): T[] {
  const entry = list[from];
  if (entry === undefined || to < 0 || to >= list.length) return list;
  const others = list.filter((_, at) => at !== from);
  return [...others.slice(0, to), entry, ...others.slice(to)];
}
