/** Lists whose rows are moved by dragging their numbers, or with Alt and the arrow keys. */

import { HolderOutlined } from "@ant-design/icons";
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";

import "./movable.css";

type Move = (from: number, to: number) => void;

/** `move` is told places that may lie beyond the list's ends; see `moved`. */
export function MovableList(props: { count: number; className: string; move: Move; children: React.ReactNode }): React.ReactNode {
  const { count, className, move, children } = props;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={({ active, over }) => over && move(Number(active.id) - 1, Number(over.id) - 1)}>
      <SortableContext items={Array.from({ length: count }, (_, at) => at + 1)} strategy={verticalListSortingStrategy}>
        <ol className={className}>{children}</ol>
      </SortableContext>
    </DndContext>
  );
}

/** A row of the list; `name` is what is moved, for whoever hears it. */
export function MovableRow(props: { at: number; name: string; className: string; move: Move; children: React.ReactNode }): React.ReactNode {
  const { at, name, className, move, children } = props;
  const sortable = useSortable({ id: at + 1 });
  const pressed = (event: React.KeyboardEvent): void => {
    if (!event.altKey || !["ArrowUp", "ArrowDown"].includes(event.key)) return;
    event.preventDefault();
    move(at, at + (event.key === "ArrowUp" ? -1 : 1));
  };
  return (
    <li
      ref={sortable.setNodeRef}
      className={`movable ${className} ${sortable.isDragging ? "dragging" : ""}`}
      style={{ transform: CSS.Translate.toString(sortable.transform), transition: sortable.transition }}
      onKeyDown={pressed}
    >
      <button type="button" className="move-handle" ref={sortable.setActivatorNodeRef} {...sortable.attributes} {...sortable.listeners} aria-label={`Move ${name}`}>
        <HolderOutlined aria-hidden />
        {at + 1}
      </button>
      {children}
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
