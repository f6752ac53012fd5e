/** How a text was read: the interpretations tried, in order, and how much each found. */

import { Table } from "antd";

import type { Trace } from "./search";

export function InterpretationTable({ trace }: { trace: Trace }): React.ReactNode {
  return (
    <>
      <h2>How it was read</h2>
      <Table
        rowKey={(_, index) => String(index)}
        size="small"
        dataSource={trace.interpretations}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: "A group that is opened is not searched: there is nothing to read." }}
        columns={[
          { title: "Dataset", dataIndex: "dataset" },
          { title: "Read as", dataIndex: "interpretation" },
          { title: "As the words", render: (_, row) => <code>{row.tokens.join(" · ")}</code> },
          { title: "Found", align: "right", render: (_, row) => row.found.toLocaleString("en") },
        ]}
      />
    </>
  );
}
