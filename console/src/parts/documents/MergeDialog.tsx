/** Two people have changed the same: both ways side by side, to be chosen part by part. */

import { Modal, Radio, Table } from "antd";
import { useState } from "react";

import { counted } from "../formatting";
import type { Conflict } from "./merge";

const placeOf = (conflict: Conflict): string => `${conflict.key}/${conflict.setting}`;

export function MergeDialog(props: { conflicts: Conflict[]; resolve: (theirs: ReadonlySet<string>) => void }): React.ReactNode {
  const { conflicts, resolve } = props;
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(new Set());
  const choose = (conflict: Conflict, isTheirs: boolean): void => {
    const next = new Set(theirs);
    if (isTheirs) next.add(placeOf(conflict));
    else next.delete(placeOf(conflict));
    setTheirs(next);
  };
  return (
    <Modal
      title="Somebody else has changed the same"
      open
      width={720}
      closable={false}
      keyboard={false}
      mask={{ closable: false }}
      cancelButtonProps={{ hidden: true }}
      okText="Go on with these"
      onOk={() => resolve(theirs)}
    >
      <p>Everything else has been put together. Choose for each of these which one is to stay:</p>
      <Table<Conflict>
        rowKey={placeOf}
        size="small"
        pagination={false}
        dataSource={conflicts}
        columns={[
          { title: "Where", render: (_, conflict) => <>{conflict.label}<div className="key">{nameOf(conflict)}</div></> },
          { title: "Which", render: (_, conflict) => (
              <Radio.Group
                aria-label={`${conflict.label}: ${nameOf(conflict)}`}
                value={theirs.has(placeOf(conflict))}
                onChange={(event) => choose(conflict, Boolean(event.target.value))}
                options={[
                  { value: false, label: `Mine: ${written(conflict.mine)}` },
                  { value: true, label: `Theirs: ${written(conflict.theirs)}` },
                ]}
              />
            ),
          },
        ]}
      />
    </Modal>
  );
}

function nameOf(conflict: Conflict): string {
  return conflict.setting === "*" ? "whether it is there" : conflict.setting.replaceAll("_", " ");
}

function written(value: unknown): string {
  if (value === null || value === undefined || value === "") return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string" || typeof value === "number") return String(value);
  if (!Array.isArray(value)) return labelOf(value) ?? "changed";
  const names = value.map((one) => (typeof one === "string" ? one : labelOf(one)));
  return names.every((name) => name !== undefined) ? names.join(", ") || "nothing" : counted(value.length, "entry");
}

function labelOf(of: unknown): string | undefined {
  const { label, value } = of as { label?: unknown; value?: unknown };
  return [label, value].find((one) => typeof one === "string");
}
