/** What was noticed in a file's rows, with the first places of each. */

import { Table } from "antd";

import { StateTag } from "../parts/StateTag";
import { count, share } from "../parts/formatting";
import type { Edition, Finding } from "./schemas";

export function FindingTable({ edition }: { edition: Edition }): React.ReactNode {
  const rows = edition.rows_used + edition.rows_bad;
  if (!edition.findings.length) {
    return <p>Nothing was noticed in its {count(rows)} rows.</p>;
  }
  return (
    <Table<Finding>
      rowKey="name"
      size="small"
      dataSource={edition.findings}
      pagination={false}
      scroll={{ x: true }}
      expandable={{
        expandedRowRender: (finding) => <Samples finding={finding} />,
        columnTitle: <span className="unseen">Samples</span>,
      }}
      columns={[
        {
          title: "Finding",
          render: (_, finding) => (
            <>
              {finding.title}
              <div className="hint">{finding.advice}</div>
            </>
          ),
        },
        {
          title: "Its rows",
          render: (_, finding) =>
            finding.left_out ? <StateTag tone="waits">left out</StateTag> : <StateTag tone="fine">kept</StateTag>,
        },
        { title: "Count", align: "right", render: (_, finding) => count(finding.count) },
        { title: "Share of rows", align: "right", render: (_, finding) => share(finding.count, rows) },
      ]}
    />
  );
}

function Samples({ finding }: { finding: Finding }): React.ReactNode {
  return (
    <table className="samples">
      <caption>
        {finding.count > finding.samples.length
          ? `The first ${finding.samples.length} of ${count(finding.count)}`
          : "Where it is"}
      </caption>
      <thead>
        <tr>
          <th scope="col">Line</th>
          <th scope="col">Id</th>
          <th scope="col">Column</th>
          <th scope="col">What stands there</th>
        </tr>
      </thead>
      <tbody>
        {finding.samples.map((sample, index) => (
          <tr key={index}>
            <td>{count(sample.line)}</td>
            <td>{sample.id}</td>
            <td>{sample.column}</td>
            <td dir="auto">{sample.value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
