/** Each call of the last days; what was asked and answered only where somebody observes. */

import { Button, Empty, Select, Switch, Table } from "antd";
import { useState } from "react";

import { useKeys } from "../keys/useKeys";
import { LoadError } from "../parts/LoadError";
import { StateTag } from "../parts/StateTag";
import { Observing } from "./Observing";
import { type Call, type CallFilter, asQuery, useCalls } from "./useActivity";

const OUTCOMES = [
  { value: "answered", label: "answered" },
  { value: "refused", label: "refused" },
  { value: "failed", label: "failed" },
];

export function CallsView(): React.ReactNode {
  const keys = useKeys();
  const [filter, setFilter] = useState<CallFilter>({});
  const [pages, setPages] = useState<number[]>([]);
  const [follows, setFollows] = useState(false);
  const calls = useCalls(filter, pages.at(-1), follows);
  if (calls.isError) return <LoadError error={calls.error} again={() => void calls.refetch()} />;
  const found = calls.data?.calls ?? [];
  const set = (changed: CallFilter): void => {
    setFilter({ ...filter, ...changed });
    setPages([]);
  };
  const who = [
    { value: "people", label: "People who are signed in" },
    { value: "-", label: "Nobody known" },
    ...(keys.data?.keys ?? []).map((key) => ({ value: key.id, label: `${key.name} (${key.id})` })),
  ];
  return (
    <>
      <Observing />
      <div className="filters">
        <Select allowClear showSearch={{ optionFilterProp: "label" }} aria-label="Who calls" placeholder="Anybody" options={who} popupMatchSelectWidth={false} onChange={(subject: string | undefined) => set({ subject })} />
        <Select allowClear showSearch aria-label="What is called" placeholder="Any endpoint" options={(calls.data?.endpoints ?? []).map((value) => ({ value }))} popupMatchSelectWidth={false} onChange={(endpoint: string | undefined) => set({ endpoint })} />
        <Select allowClear aria-label="How it ended" placeholder="However it ended" options={OUTCOMES} onChange={(outcome: string | undefined) => set({ outcome })} />
        <label className="follow">
          <Switch size="small" checked={follows} disabled={pages.length > 0} onChange={setFollows} /> Follow
        </label>
        <a href={`/api/v1/activity-lines?${asQuery(filter)}`} download>
          JSON Lines
        </a>
      </div>
      <Table<Call>
        rowKey="id"
        size="small"
        loading={calls.isPending}
        dataSource={found}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description={`No such call in the last ${calls.data?.kept_days ?? 14} days.`} /> }}
        expandable={{
          columnTitle: <span className="visually-hidden">Question and answer</span>,
          showExpandColumn: found.some((one) => one.question !== null),
          rowExpandable: (one) => one.question !== null,
          expandedRowRender: (one) => (
            <>
              <pre className="observed">{one.question}</pre>
              <pre className="observed">{one.answer}</pre>
            </>
          ),
        }}
        columns={[
          { title: "When", render: (_, one) => exactly(one.at) },
          {
            title: "Who",
            render: (_, one) => (
              <>
                {one.name || "nobody known"}
                {one.origin && <div className="hint">{one.origin}</div>}
              </>
            ),
          },
          {
            title: "What",
            render: (_, one) => (
              <>
                <span className="key">{one.endpoint}</span>
                {one.of && <div className="hint">{one.of}</div>}
              </>
            ),
          },
          { title: "How it ended", render: (_, one) => <StateTag tone={one.outcome === "answered" ? "fine" : "waits"}>{`${one.outcome}, ${one.status}`}</StateTag> },
          { title: "ms", align: "right", render: (_, one) => one.ms.toLocaleString("en", { maximumFractionDigits: 1 }) },
        ]}
      />
      <div className="paging">
        <Button disabled={pages.length === 0} onClick={() => setPages(pages.slice(0, -1))}>
          Later calls
        </Button>
        <Button disabled={found.length < 50} onClick={() => setPages([...pages, found.at(-1)?.id ?? 0])}>
          Earlier calls
        </Button>
      </div>
    </>
  );
}

/** To the second: calls come many a minute. */
function exactly(time: string): string {
  return new Date(time).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit", second: "2-digit" });
}
