/** All datasets. */

import { Empty, Table } from "antd";
import { Link, useNavigate } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { StateTag } from "../parts/StateTag";
import { count, megabytes } from "../parts/formatting";
import { LoadFile } from "./LoadFile";
import type { DatasetSummary } from "./schemas";
import { useDatasets } from "./useData";

export default function DatasetListPage(): React.ReactNode {
  const datasets = useDatasets();
  const navigate = useNavigate();
  if (datasets.isError) return <LoadError error={datasets.error} again={() => void datasets.refetch()} />;
  return (
    <>
      <PageHead
        title="Reference data"
        about="What people find in: each dataset is one source, loaded as numbered editions of which one is active."
      />
      <Table<DatasetSummary>
        rowKey="name"
        loading={datasets.isPending}
        dataSource={datasets.data ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is no dataset yet: load the first file below." /> }}
        columns={[
          {
            title: "Dataset",
            render: (_, dataset) => <Link to={`/data/${dataset.name}`}>{dataset.name}</Link>,
          },
          {
            title: "Active",
            render: (_, dataset) =>
              dataset.active_edition ? `Edition ${dataset.active_edition}` : <StateTag tone="waits">none</StateTag>,
          },
          { title: "Addresses", align: "right", render: (_, dataset) => count(dataset.addresses) },
          { title: "Editions", align: "right", render: (_, dataset) => count(dataset.editions) },
          { title: "On disk", align: "right", render: (_, dataset) => megabytes(dataset.disk_bytes) },
          {
            title: "Going on",
            render: (_, dataset) =>
              dataset.open_job
                ? `${dataset.open_job.kind}, ${dataset.open_job.phase || dataset.open_job.state}`
                : "nothing",
          },
        ]}
      />
      <div className="space-above">
        <LoadFile onSent={(job) => void navigate(`/data/${job.dataset}`)} />
      </div>
    </>
  );
}
