/** A slot's mapping: which components, joined and changed how, go into which field. */

import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Empty, Input, Select, Space, Table } from "antd";

import type { FormDocument, Rule, Slot } from "../api/schemas";
import { useComponentLabels } from "../layouts/layouts";
import { cellLabel } from "../parts/cellLabel";
import { Named } from "../parts/Named";
import { CHANGES, COMPONENTS } from "../api/vocabulary";

interface Row {
  rule: Rule;
  at: number;
}

export function MappingTable(props: {
  document: FormDocument;
  slot: Slot;
  edit: (next: Slot) => void;
}): React.ReactNode {
  const { document, slot, edit } = props;
  const put = (mapping: Rule[]): void => edit({ ...slot, mapping });
  const change = (at: number, part: Partial<Rule>): void => {
    const rule = slot.mapping[at];
    if (rule) put(slot.mapping.with(at, { ...rule, ...part }));
  };
  const labels = useComponentLabels();
  const fields = fieldChoices(document, slot, labels);
  return (
    <>
      <Table<Row>
        rowKey="at"
        dataSource={slot.mapping.map((rule, at) => ({ rule, at }))}
        pagination={false}
        size="small"
        className="rules"
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="Nothing is filled yet: add a rule." /> }}
        columns={[
          {
            title: "Components",
            onCell: cellLabel("Components"),
            width: "30%",
            render: (_, { rule, at }) => (
              <Select
                mode="multiple"
                aria-label={`Components of rule ${at + 1}`}
                className="rule-components"
                value={rule.components}
                options={COMPONENTS.map((value) => ({ value, label: labels[value] ?? value }))}
                optionRender={({ value, label }) => <Named label={String(label)} name={String(value)} />}
                showSearch={{ filterOption: hasText }}
                onChange={(components) => change(at, { components })}
              />
            ),
          },
          {
            title: "Joined by",
            onCell: cellLabel("Joined by"),
            width: 66,
            render: (_, { rule, at }) =>
              rule.components.length < 2 ? (
                <span className="visually-hidden">nothing to join</span>
              ) : (
                <Input
                  aria-label={`What joins the components of rule ${at + 1}; ␣ is a space`}
                  maxLength={20}
                  value={withVisibleSpaces(rule.join ?? " ")}
                  onChange={(event) => change(at, { join: withSpaces(event.target.value) })}
                />
              ),
          },
          {
            title: "Changed",
            onCell: cellLabel("Changed"),
            render: (_, { rule, at }) => (
              <Select
                mode="multiple"
                aria-label={`Changes of rule ${at + 1}`}
                className="rule-changes"
                value={rule.changes}
                placeholder="as it is"
                options={Object.entries(CHANGES).map(([value, label]) => ({ value, label }))}
                onChange={(changes) => change(at, { changes })}
              />
            ),
          },
          {
            title: "Into field",
            onCell: cellLabel("Into field"),
            render: (_, { rule, at }) => (
              <Select
                showSearch={{ filterOption: hasText }}
                optionRender={({ value, label }) => <Named label={String(label)} name={String(value)} />}
                popupMatchSelectWidth={false}
                aria-label={`Field of rule ${at + 1}`}
                className="rule-field"
                value={rule.into}
                options={fields}
                onChange={(into) => change(at, { into })}
              />
            ),
          },
          {
            title: <span className="visually-hidden">Move or remove</span>,
            render: (_, { at }) => (
              <RuleActions at={at} count={slot.mapping.length} mapping={slot.mapping} put={put} />
            ),
          },
        ]}
      />
      <Button
        icon={<PlusOutlined aria-hidden />}
        className="space-above"
        onClick={() =>
          put([
            ...slot.mapping,
            { components: ["street"], into: String(fields[0]?.value ?? ""), changes: [] },
          ])
        }
      >
        Add a rule
      </Button>
    </>
  );
}

function RuleActions(props: {
  at: number;
  count: number;
  mapping: Rule[];
  put: (mapping: Rule[]) => void;
}): React.ReactNode {
  const { at, count, mapping, put } = props;
  const swap = (other: number): void => {
    const [here, there] = [mapping[at], mapping[other]];
    if (here && there) put(mapping.with(at, there).with(other, here));
  };
  return (
    <Space size={0}>
      <Button
        type="text"
        size="small"
        aria-label={`Move rule ${at + 1} up`}
        disabled={at === 0}
        icon={<ArrowUpOutlined aria-hidden />}
        onClick={() => swap(at - 1)}
      />
      <Button
        type="text"
        size="small"
        aria-label={`Move rule ${at + 1} down`}
        disabled={at === count - 1}
        icon={<ArrowDownOutlined aria-hidden />}
        onClick={() => swap(at + 1)}
      />
      <Button
        type="text"
        size="small"
        danger
        aria-label={`Remove rule ${at + 1}`}
        icon={<DeleteOutlined aria-hidden />}
        onClick={() => put(mapping.filter((_, index) => index !== at))}
      />
    </Space>
  );
}

const VISIBLE_SPACE = "␣";

/** A joint that is only a space must be seen to be understood. */
function withVisibleSpaces(join: string): string {
  return join.replaceAll(" ", VISIBLE_SPACE);
}

function withSpaces(shown: string): string {
  return shown.replaceAll(VISIBLE_SPACE, " ");
}

/** The slot's own parts first, then the form's other fields. */
function fieldChoices(
  document: FormDocument,
  slot: Slot,
  labels: Record<string, string>,
): { value: string; label: string }[] {
  const others = document.fields.flatMap((entry) => ("slot" in entry ? [] : [entry]));
  return [...slot.parts, ...others].map((field) => ({
    value: field.key,
    label: field.label || (field.component && labels[field.component]) || field.key,
  }));
}

/** Whether a choice is called so, by its label or its key. */
function hasText(typed: string, option: { value?: unknown; label?: unknown } | undefined): boolean {
  return `${String(option?.label)} ${String(option?.value)}`.toLowerCase().includes(typed.toLowerCase());
}
