/** Mistakes of set-up that pages have reported: never what somebody typed. */

import { Empty, Table } from "antd";

import { LoadError } from "../parts/LoadError";
import { readable } from "../parts/times";
import { useFaults } from "./useTargets";

export function FaultTable({ target }: { target: string }): React.ReactNode {
  const faults = useFaults(target);
  if (faults.isError) return <LoadError error={faults.error} again={() => void faults.refetch()} />;
  return (
    <Table
      rowKey={(one) => one.kind + one.subject}
      loading={faults.isPending}
      dataSource={faults.data?.faults ?? []}
      pagination={false}
      scroll={{ x: true }}
      locale={{ emptyText: <Empty description="No page has reported a mistake." /> }}
      columns={[
        { title: "What is wrong, and what to do", render: (_, one) => one.detail },
        { title: "Times", align: "right", render: (_, one) => one.count.toLocaleString("en") },
        { title: "Last seen", render: (_, one) => readable(one.last_at) },
        { title: "In the browser", render: (_, one) => <span className="hint">{one.browser}</span> },
      ]}
    />
  );
}
