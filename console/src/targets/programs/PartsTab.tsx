/** The parts that an address comes to, and what each is. */

import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Checkbox, Input, InputNumber, Table } from "antd";

import { WhatItIsChoice, whatItIsTitle } from "../WhatItIsChoice";
import { inCapitals, withCapitals, withChoice } from "../whatItIs";
import type { Part, ProgramProps } from "./usePrograms";

export function PartsTab({ document, edit }: ProgramProps): React.ReactNode {
  const set = (key: string, changed: Partial<Part>): void => edit({ ...document, parts: document.parts.map((one) => (one.key === key ? { ...one, ...changed } : one)) });
  return (
    <>
      <p>A part is a text that the address comes to. Where it is written is said by the plan; a part that the plan does not write is offered after a run, to be copied.</p>
      <Table<Part>
        rowKey="key"
        size="small"
        pagination={false}
        scroll={{ x: true }}
        dataSource={document.parts}
        locale={{ emptyText: "There are no parts yet." }}
        columns={[
          {
            title: "Part",
            render: (_, part) => (
              <>
                <Input aria-label={`Name of ${part.key}`} value={part.label ?? ""} maxLength={200} onChange={(event) => set(part.key, { label: event.target.value })} />
                <div className="key">{part.key}</div>
              </>
            ),
          },
          ...document.addresses.map((address, at) => ({
            title: whatItIsTitle(address, document.addresses.length > 1),
            render: (_: unknown, part: Part) => (
              <WhatItIsChoice address={address} of={part} isOneOfSeveral={document.addresses.length > 1} change={(next) => edit(withChoice(document, at, part.key, next))} />
            ),
          })),
          {
            title: "In capitals",
            render: (_, part) => {
              const all = document.wording?.capitals ?? false;
              const isOn = document.addresses.every((address) => inCapitals(address, part.key));
              return <Checkbox aria-label={`${part.label ?? part.key} in capitals`} checked={all || isOn} disabled={all} onChange={(event) => edit(withCapitals(document, part.key, event.target.checked))} />;
            },
          },
          {
            title: "Most characters",
            render: (_, part) => <InputNumber aria-label={`Most characters of ${part.label ?? part.key}`} min={1} max={10000} value={part.max_length} onChange={(value) => set(part.key, { max_length: value })} />,
          },
          {
            title: <span className="visually-hidden">What can be done</span>,
            render: (_, part) => <Button aria-label={`Take out ${part.label ?? part.key}`} icon={<DeleteOutlined aria-hidden />} onClick={() => edit(without(document, part.key))} />,
          },
        ]}
      />
      <p>
        <Button icon={<PlusOutlined aria-hidden />} onClick={() => edit({ ...document, parts: [...document.parts, newPart(document.parts)] })}>
          Add a part
        </Button>
      </p>
    </>
  );
}

/** The target without a part: neither mapping nor plan name it any more. */
export function without(document: ProgramProps["document"], key: string): ProgramProps["document"] {
  return {
    ...document,
    parts: document.parts.filter((one) => one.key !== key),
    addresses: document.addresses.map((address) => ({
      ...address,
      mapping: (address.mapping ?? []).flatMap((rule) => {
        if (rule.into === key) return [];
        if (!rule.fit?.into.includes(key)) return [rule];
        const into = rule.fit.into.filter((one) => one !== key);
        return into.length ? [{ ...rule, fit: { ...rule.fit, into } }] : [];
      }),
      plan: { ...address.plan, table: address.plan.table.filter((row) => row.part !== key), not_offered: address.plan.not_offered.filter((one) => one !== key) },
    })),
  };
}

function newPart(parts: Part[]): Part {
  let number = parts.length + 1;
  while (parts.some((one) => one.key === `part-${number}`)) number += 1;
  return { key: `part-${number}`, label: `Part ${number}`, max_length: null };
}
