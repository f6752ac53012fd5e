/** The table of a plan: which part goes in, whether its field is emptied, what comes after it. */

import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Checkbox, Empty, Input, InputNumber, Select } from "antd";

import { MovableList, MovableRow, moved } from "../../parts/MovableList";
import type { Part, Plan, ProgramDocument, Row } from "./usePrograms";
import { CLEARS, THEN } from "./words";

export function PlanTable(props: { document: ProgramDocument; at: number; change: (plan: Plan) => void }): React.ReactNode {
  const { document, at, change } = props;
  const plan = document.addresses[at]!.plan;
  const rows = plan.table;
  const put = (table: Row[]): void => change({ ...plan, table });
  const move = (from: number, to: number): void => put(moved(rows, from, to));
  const unused = document.parts.find((part) => !rows.some((row) => row.part === part.key)) ?? document.parts[0];
  return (
    <>
      {rows.length === 0 && <Empty description="Nothing is written yet: add the part that goes into the first field." />}
      <MovableList count={rows.length} className="plan-rows" move={move}>
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
      </MovableList>
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
  return (
    <MovableRow at={at} name={name} className={`plan-row ${isFirst ? "new-field" : ""}`} move={move}>
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
    </MovableRow>
  );
}
