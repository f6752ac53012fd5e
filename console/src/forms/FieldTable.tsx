/** The form's fields in their order; a slot stands as one row, its parts below it. */

import { Input, Switch, Table, Tag } from "antd";

import { useComponentLabels } from "../layouts/layouts";
import { cellLabel } from "../parts/cellLabel";
import { Named } from "../parts/Named";
import type { Field, FormDocument, Slot } from "../api/schemas";
import { inWords } from "./conditions";

interface Row {
  field: Field;
  slot: Slot | null;
  heading: boolean;
}

function rowsOf(document: FormDocument): Row[] {
  return document.fields.flatMap((entry) => {
    if (!("slot" in entry)) return [{ field: entry, slot: null, heading: false }];
    const slot = document.slots.find((s) => s.key === entry.slot);
    if (!slot) return [];
    const heading: Row = { field: { key: slot.key, label: slot.label }, slot, heading: true };
    return [heading, ...slot.parts.map((field) => ({ field, slot, heading: false }))];
  });
}

/** Types that nobody fills. */
const UNFILLED = new Set(["heading", "note", "formula"]);

/** The document with one field changed, wherever it stands. */
export function withField(document: FormDocument, changed: Field): FormDocument {
  const swap = (field: Field): Field => (field.key === changed.key ? changed : field);
  return {
    ...document,
    fields: document.fields.map((entry) => ("slot" in entry ? entry : swap(entry))),
    slots: document.slots.map((slot) => ({ ...slot, parts: slot.parts.map(swap) })),
  };
}

export function FieldTable(props: {
  document: FormDocument;
  edit: (next: FormDocument) => void;
}): React.ReactNode {
  const { document, edit } = props;
  const labels = useComponentLabels();
  const change = (field: Field, part: Partial<Field>): void =>
    edit(withField(document, { ...field, ...part }));
  return (
    <Table<Row>
      rowKey={(row) => `${row.heading ? "slot-" : ""}${row.field.key}`}
      dataSource={rowsOf(document)}
      pagination={false}
      size="small"
      className="rules"
      scroll={{ x: true }}
      columns={[
        {
          title: "Field",
          onCell: cellLabel("Field"),
          render: (_, { field, slot, heading }) => (
            <span className={slot && !heading ? "part-name" : "field-name"}>
              <Named label={field.label || labels[field.component ?? ""]} name={field.key} />
            </span>
          ),
        },
        {
          title: "Label",
          onCell: cellLabel("Label"),
          render: (_, { field, heading }) =>
            heading ? (
              <strong>{field.label}</strong>
            ) : (
              <Input
                aria-label={`Label of ${field.key}`}
                className="field-label"
                value={field.label ?? ""}
                placeholder={field.component ? "from layout" : ""}
                maxLength={200}
                onChange={(event) => change(field, { label: event.target.value || null })}
              />
            ),
        },
        {
          title: "Type",
          onCell: cellLabel("Type"),
          render: (_, { field, heading }) =>
            heading ? (
              <Tag>address</Tag>
            ) : (
              <Tag>{field.component ? "part" : (field.type ?? "text")}</Tag>
            ),
        },
        {
          title: "Needed",
          onCell: cellLabel("Needed"),
          render: (_, { field, heading }) =>
            heading || UNFILLED.has(field.type ?? "text") ? null : (
              <Switch
                size="small"
                aria-label={`${field.key} is needed`}
                disabled={field.type === "consent"}
                checked={field.required || field.type === "consent"}
                onChange={(required) => change(field, { required })}
              />
            ),
        },
        {
          title: "Shown",
          onCell: cellLabel("Shown"),
          render: (_, { field, slot, heading }) => {
            const condition = heading ? slot?.shown_when : field.shown_when;
            if (!condition) return "always";
            const words = inWords(condition, document);
            return words ? `when ${words}` : <span>when <code className="key">{condition}</code></span>;
          },
        },
      ]}
    />
  );
}
