/** How well capture goes: by form and page, by day, and what was searched in vain. */

import { Empty, Select, Table } from "antd";
import { useState } from "react";

import type * as api from "../../../embed/src/api";
import { LoadError } from "../parts/LoadError";
import { Panel } from "../parts/Panel";
import { readable } from "../parts/times";
import { DayPlot, daysFrom } from "./DayPlot";
import { useQuality } from "./useActivity";
import { type Whole, summed } from "./summed";

const SPANS = [7, 30, 90].map((value) => ({ value, label: `the last ${value} days` }));
const ENDS = [
  { name: "picked", label: "picked" },
  { name: "partly", label: "taken as far as it goes" },
  { name: "by_hand", label: "typed by hand" },
  { name: "left", label: "left" },
] as const;

export function QualityView(): React.ReactNode {
  const [days, setDays] = useState(30);
  const since = new Date(Date.now() - (days - 1) * 86_400_000).toISOString().slice(0, 10);
  const quality = useQuality(since);
  const [only, setOnly] = useState<string | null>(null);
  if (quality.isError) return <LoadError error={quality.error} again={() => void quality.refetch()} />;
  const all = summed(quality.data?.days ?? []);
  const listed = (quality.data?.days ?? []).filter((one) => only === null || `${one.kind} ${one.name}` === only);
  const rows = daysFrom(since, new Date().toISOString().slice(0, 10)).map((day) => ({
    day,
    ...Object.fromEntries(ENDS.map(({ name }) => [name, listed.filter((one) => one.day === day).reduce((sum, one) => sum + one.counts[name], 0)])),
  }));
  return (
    <>
      <div className="filters">
        <Select aria-label="Which days" value={days} options={SPANS} onChange={setDays} />
        <Select
          allowClear
          aria-label="Which form or page"
          placeholder="All forms and pages"
          value={only}
          options={all.map((one) => ({ value: one.key, label: one.title }))}
          popupMatchSelectWidth={false}
          onChange={(value: string | undefined) => setOnly(value ?? null)}
        />
        <a href={`/api/v1/capture-quality-table?since=${since}`} download>
          CSV
        </a>
      </div>
      {listed.length > 0 && <DayPlot label="How captures ended, by day" rows={rows} series={[...ENDS]} />}
      <Table<Whole>
        rowKey="key"
        size="small"
        loading={quality.isPending}
        dataSource={all.filter((one) => only === null || one.key === only)}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="Nothing was captured in these days." /> }}
        columns={[
          {
            title: "Where",
            render: (_, one) => (
              <>
                {one.title}
                <div className="hint">{one.kind === "form" ? "form" : "page of others"}</div>
              </>
            ),
          },
          { title: "Shown", align: "right", render: (_, one) => one.counts.shown.toLocaleString("en") },
          { title: "Begun", align: "right", render: (_, one) => part(one.counts.begun, one.counts.shown) },
          { title: "Picked", align: "right", render: (_, one) => part(one.counts.picked, one.counts.begun) },
          { title: "As far as it goes", align: "right", render: (_, one) => part(one.counts.partly, one.counts.begun) },
          { title: "By hand", align: "right", render: (_, one) => part(one.counts.by_hand, one.counts.begun) },
          { title: "Left", align: "right", render: (_, one) => part(one.counts.left, one.counts.begun) },
          { title: "Changed after a pick", align: "right", render: (_, one) => part(one.counts.changed, one.counts.picked) },
          {
            title: "Characters a key",
            align: "right",
            render: (_, one) => (one.counts.keys ? (one.counts.characters / one.counts.keys).toLocaleString("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 }) : ""),
          },
        ]}
      />
      <NotFound found={quality.data?.not_found ?? []} />
    </>
  );
}

/** A number with its share of another. */
function part(count: number, of: number): string {
  return of ? `${count.toLocaleString("en")}\u00a0(${Math.round((100 * count) / of)}\u00a0%)` : count.toLocaleString("en");
}

function NotFound({ found }: { found: api.NotFound[] }): React.ReactNode {
  if (!found.length) return null;
  return (
    <Panel title="Searched and not found" apart>
      <p className="hint">Each text is kept as a digest, which tells only that it was the same one; whole while its form or page is observed.</p>
      <Table<api.NotFound>
        rowKey={(one) => one.kind + one.name + one.digest}
        size="small"
        dataSource={found}
        pagination={{ pageSize: 10, hideOnSinglePage: true }}
        scroll={{ x: true }}
        columns={[
          { title: "Text", render: (_, one) => one.text ?? <span className="hint">digest {one.digest.slice(0, 8)}</span> },
          { title: "Where", render: (_, one) => one.name },
          { title: "Times", align: "right", render: (_, one) => one.count.toLocaleString("en") },
          { title: "Last", render: (_, one) => readable(one.last_at) },
        ]}
      />
    </Panel>
  );
}
