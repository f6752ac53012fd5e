/** The latest runs of a program target: how each ended, and its steps with times. */

import { Button, Empty, Table, Tag } from "antd";

import { LoadError } from "../../parts/LoadError";
import { readable } from "../../parts/times";
import { type Run, useRuns } from "./usePrograms";
import { OUTCOMES, FIELD_STATES } from "./words";

export function RunTable({ target }: { target: string }): React.ReactNode {
  const runs = useRuns(target);
  if (runs.isError) return <LoadError error={runs.error} again={() => void runs.refetch()} />;
  return (
    <Table<Run>
      rowKey="id"
      size="small"
      loading={runs.isPending}
      dataSource={runs.data?.pages.flatMap((page) => page.runs) ?? []}
      pagination={false}
      {...(runs.hasNextPage && {
        footer: () => (
          <Button loading={runs.isFetchingNextPage} onClick={() => void runs.fetchNextPage()}>
            Show earlier runs
          </Button>
        ),
      })}
      scroll={{ x: true }}
      locale={{ emptyText: <Empty description="Nothing has been written yet. What agents write is told here, without the addresses." /> }}
      expandable={{ columnTitle: <span className="visually-hidden">Steps</span>, expandedRowRender: (run) => <RunSteps run={run} /> }}
      columns={[
        { title: "When", render: (_, run) => readable(run.at) },
        {
          title: "How it ended",
          render: (_, run) => (
            <>
              <Tag color={OUTCOMES[run.outcome]?.colour ?? "default"}>{OUTCOMES[run.outcome]?.label ?? run.outcome}</Tag> {run.detail}
            </>
          ),
        },
        { title: "Took", align: "right", render: (_, run) => `${run.ms.toLocaleString("en")} ms` },
        { title: "Version", align: "right", render: (_, run) => (run.version === 0 ? "draft" : run.version) },
        { title: "Address", render: (_, run) => `${run.address}${run.practice ? ", practice" : ""}` },
        { title: "Where", render: (_, run) => [run.machine, run.key].filter(Boolean).join(", ") },
      ]}
    />
  );
}

function RunSteps({ run }: { run: Run }): React.ReactNode {
  return (
    <div className="program-columns">
      <ol className="step-list">
        {run.log.map((step, at) => (
          <li key={at} className={step.failed ? "failed" : ""}>
            <span className="hint">{step.at_ms.toLocaleString("en")} ms</span> {step.says}
            {step.failed && ": it stopped here"}
          </li>
        ))}
      </ol>
      <ul className="plain">
        {run.fields.map((one) => (
          <li key={one.field}>
            {one.label || one.field}: {FIELD_STATES[one.state] ?? one.state}
          </li>
        ))}
      </ul>
    </div>
  );
}
