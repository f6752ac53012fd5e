/** The editions of a dataset, with what can be done with each. */

import { Button, Empty, Popconfirm, Table } from "antd";
import { Link } from "react-router";

import { StateTag } from "../parts/StateTag";
import { count, megabytes } from "../parts/formatting";
import { readable } from "../parts/times";
import type { Dataset, EditionSummary } from "./schemas";
import { useActivation } from "./useActivation";
import { useRemoval } from "./useData";
import { ErrorAlert } from "../parts/ErrorAlert";

export function EditionTable({ dataset }: { dataset: Dataset }): React.ReactNode {
  const { activate, action } = useActivation(dataset);
  const removal = useRemoval(dataset.name);
  const failed = action.error ?? removal.error;
  const disk = dataset.editions.reduce((sum, e) => sum + e.index_bytes + e.rows_bytes, 0);
  return (
    <>
      <ErrorAlert error={failed} />
      <Table<EditionSummary>
        rowKey="number"
        size="small"
        dataSource={dataset.editions}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is no edition yet: load a file." /> }}
        columns={[
          {
            title: "Edition",
            render: (_, edition) => (
              <Link to={`/data/${dataset.name}/${edition.number}`}>Edition {edition.number}</Link>
            ),
          },
          { title: "State", render: (_, edition) => <State dataset={dataset} edition={edition} /> },
          { title: "Addresses", align: "right", render: (_, edition) => count(edition.addresses) },
          { title: "Left out", align: "right", render: (_, edition) => count(edition.rows_bad) },
          {
            title: "From",
            render: (_, edition) => (
              <>
                <span className="source-name">{edition.source_name || "a file without a name"}</span>
                <div className="hint">
                  {edition.changes_to ? `changes to edition ${edition.changes_to} · ` : ""}
                  {edition.built_at ? readable(edition.built_at) : ""}
                </div>
              </>
            ),
          },
          {
            title: "On disk",
            align: "right",
            render: (_, edition) =>
              edition.index_bytes ? megabytes(edition.index_bytes + edition.rows_bytes) : "not known",
          },
          {
            title: <span className="unseen">What can be done</span>,
            align: "right",
            render: (_, edition) =>
              !edition.active && (
                <span className="row-actions">
                  <Button
                    size="small"
                    loading={action.isPending && action.variables?.number === edition.number}
                    aria-label={`${verb(dataset, edition)} edition ${edition.number}`}
                    onClick={() => void activate(edition.number)}
                  >
                    {verb(dataset, edition)}
                  </Button>
                  <Popconfirm
                    title={`Take edition ${edition.number} away with its rows?`}
                    okText="Take it away"
                    cancelText="Keep it"
                    onConfirm={() => removal.mutate(edition.number)}
                  >
                    <Button size="small" type="text" danger aria-label={`Remove edition ${edition.number}`}>
                      Remove
                    </Button>
                  </Popconfirm>
                </span>
              ),
          },
        ]}
      />
      <p className="muted" hidden={!dataset.editions.length}>
        Kept: the active edition, the one active before it, and the {dataset.rules.keep} newest of the others;{" "}
        {megabytes(disk)} in all.
      </p>
    </>
  );
}

function verb(dataset: Dataset, edition: EditionSummary): string {
  return edition.number < (dataset.active_edition ?? 0) ? "Restore" : "Activate";
}

function State({ dataset, edition }: { dataset: Dataset; edition: EditionSummary }): React.ReactNode {
  if (edition.active) return <StateTag tone="fine">active</StateTag>;
  if (edition.number > (dataset.active_edition ?? 0)) return <StateTag tone="waits">waits</StateTag>;
  return <span className="muted">{edition.number === dataset.previous_edition ? "active before" : "older"}</span>;
}
