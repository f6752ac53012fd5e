/** Addresses that were fetched, by key and day; limits; what a number would cost. */

import { Button, Form, Input, InputNumber, Modal, Table } from "antd";
import { useState } from "react";

import { ErrorAlert } from "../parts/ErrorAlert";
import { LoadError } from "../parts/LoadError";
import { StateTag } from "../parts/StateTag";
import { DayPlot, daysFrom } from "./DayPlot";
import { type Subject, useAllow, useUsage } from "./useActivity";

const STATES = { within: null, near: "near its limit", used_up: "used up" } as const;

export function UsageView(): React.ReactNode {
  const [month, setMonth] = useState(new Date().toISOString().slice(0, 7));
  const usage = useUsage(month);
  const [limited, setLimited] = useState<Subject | null>(null);
  const [price, setPrice] = useState<number | null>(null);
  if (usage.isError) return <LoadError error={usage.error} again={() => void usage.refetch()} />;
  const subjects = usage.data?.subjects ?? [];
  const plotted = subjects.filter((one) => one.count > 0).slice(0, 8);
  const end = new Date(Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5)), 0)).toISOString().slice(0, 10);
  const rows = daysFrom(`${month}-01`, end).map((day) => ({
    day,
    ...Object.fromEntries(plotted.map((one) => [one.subject, one.days.find((counted) => counted.day === day)?.count ?? 0])),
  }));
  const cost = (count: number): string => (price === null ? "" : ((count * price) / 1000).toLocaleString("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 }));
  return (
    <>
      <p className="hint">Searching costs nothing. An address counts when it is fetched, once within one capture; practice addresses never do.</p>
      <div className="filters">
        <label>
          Month <Input type="month" value={month} max={new Date().toISOString().slice(0, 7)} onChange={(event) => event.target.value && setMonth(event.target.value)} />
        </label>
        <label>
          What 1,000 addresses cost <InputNumber min={0} value={price} onChange={setPrice} placeholder="your price" />
        </label>
      </div>
      {plotted.length > 0 && <DayPlot label={`Addresses fetched in ${month}, by day and key`} rows={rows} series={plotted.map((one) => ({ name: one.subject, label: one.name }))} />}
      <Table<Subject>
        rowKey="subject"
        size="small"
        loading={usage.isPending}
        dataSource={subjects}
        pagination={false}
        scroll={{ x: true }}
        summary={() => (
          <Table.Summary.Row>
            <Table.Summary.Cell index={0}>Together</Table.Summary.Cell>
            <Table.Summary.Cell index={1} align="right">
              {(usage.data?.count ?? 0).toLocaleString("en")}
            </Table.Summary.Cell>
            <Table.Summary.Cell index={2} />
            {price !== null && (
              <Table.Summary.Cell index={3} align="right">
                {cost(usage.data?.count ?? 0)}
              </Table.Summary.Cell>
            )}
            <Table.Summary.Cell index={4} />
          </Table.Summary.Row>
        )}
        columns={[
          {
            title: "For whom",
            render: (_, one) => (
              <>
                {one.name}
                {one.name !== one.subject && <div className="hint">{one.subject}</div>}
              </>
            ),
          },
          { title: "Addresses", align: "right", render: (_, one) => one.count.toLocaleString("en") },
          {
            title: "Of at most",
            align: "right",
            render: (_, one) => (
              <>
                {one.limit === null ? "any number" : one.limit.toLocaleString("en")}
                {one.day_limit !== null && <div className="hint">{one.day_limit.toLocaleString("en")} a day</div>} {STATES[one.state] && <StateTag tone="waits">{STATES[one.state]}</StateTag>}
              </>
            ),
          },
          ...(price === null ? [] : [{ title: "Cost", align: "right" as const, render: (_: unknown, one: Subject) => cost(one.count) }]),
          {
            title: <span className="visually-hidden">What can be done</span>,
            render: (_, one) =>
              isKey(one) && (
                <Button size="small" aria-label={`Limit of ${one.name}`} onClick={() => setLimited(one)}>
                  Limit
                </Button>
              ),
          },
        ]}
      />
      {limited && <Limit of={limited} close={() => setLimited(null)} />}
    </>
  );
}

/** Only keys have their limits here: those of a public page are its form's, and people have none. */
function isKey(one: Subject): boolean {
  return one.subject !== "people" && !one.subject.startsWith("page ");
}

function Limit({ of, close }: { of: Subject; close: () => void }): React.ReactNode {
  const allowing = useAllow();
  const [limit, setLimit] = useState<number | null>(of.limit);
  const [share, setShare] = useState(Math.round(of.warn_share * 100));
  const keep = (): void => allowing.mutate({ key: of.subject, monthly_limit: limit, warn_share: share / 100 }, { onSuccess: close });
  return (
    <Modal open title={`What “${of.name}” may fetch`} okText="Keep it" onOk={keep} onCancel={close} confirmLoading={allowing.isPending}>
      <Form layout="vertical">
        <Form.Item label="Addresses in a calendar month" htmlFor="limit" extra="Left empty: any number. At its end people go on by hand.">
          <InputNumber id="limit" min={0} max={1_000_000_000} precision={0} value={limit} onChange={setLimit} />
        </Form.Item>
        <Form.Item label="Near its limit from (per cent)" htmlFor="share">
          <InputNumber id="share" min={1} max={100} precision={0} value={share} onChange={(value) => setShare(value ?? 80)} />
        </Form.Item>
      </Form>
      {allowing.isError && <ErrorAlert error={allowing.error} />}
    </Modal>
  );
}
