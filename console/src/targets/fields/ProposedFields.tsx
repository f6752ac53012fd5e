/** The fields of a proposed target: what each is taken for, and why; what is not sure is said. */

import { Table, Tag } from "antd";

import { ruleFills } from "../../../../embed/src/form/rule-fills";
import { valueAt } from "../../../../embed/src/dictionary";
import { SOURCE_KINDS, kindOf, partName } from "../../forms/mapping/rules";
import { useComponentLabels } from "../../layouts/layouts";
import { Named } from "../../parts/Named";
import type { Rule } from "../../api/schemas";
import type { PageField, TargetDocument } from "../useTargets";
import { TYPES, fieldName } from "./words";

export function ProposedFields({ document, because, unsure }: { document: TargetDocument; because: Record<string, string>; unsure: string[] }): React.ReactNode {
  const labels = useComponentLabels();
  const addresses = document.addresses ?? [];
  const takes = (field: string): string =>
    addresses
      .flatMap((address) =>
        ((address.mapping ?? []) as unknown as Rule[]).filter((rule) => ruleFills(rule).includes(field)).map((rule) => {
          const parts = rule.components?.map((part) => partName(part, labels)).join(" ");
          const said = parts ?? (rule.lines === "street" ? "Street and number" : SOURCE_KINDS[kindOf(rule)].says);
          return addresses.length > 1 ? `${said} (${address.label})` : said;
        }),
      )
      .join(", ");
  return (
    <>
      <Table<PageField>
        rowKey="key"
        size="small"
        pagination={false}
        scroll={{ x: true }}
        dataSource={document.fields ?? []}
        columns={[
          { title: "Field of the page", render: (_, field) => <Named label={fieldName(field)} name={field.key} /> },
          { title: "Kind", render: (_, field) => `${TYPES.find((one) => one.value === field.type)?.label ?? ""}${field.several_lines ? " of several lines" : ""}${field.block ? `, below “${field.block}”` : ""}` },
          { title: "What goes into it", render: (_, field) => takes(field.key) || <span className="hint">nothing</span> },
          {
            title: "Because",
            render: (_, field) => (
              <>
                {unsure.includes(field.key) && <Tag color="orange">not sure</Tag>} <span className="hint">{valueAt(because, field.key)}</span>
              </>
            ),
          },
        ]}
      />
      <p className="hint">Once it is kept, every field and what goes into it can be changed, and tried on the page.</p>
    </>
  );
}
