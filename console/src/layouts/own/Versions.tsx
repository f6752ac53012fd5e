/** The published versions of an own layout, and the way back. */

import { useMutation } from "@tanstack/react-query";
import { App, Button, Table } from "antd";

import { call } from "../../api/call";
import { StateTag } from "../../parts/StateTag";
import { readable } from "../../parts/times";
import type { Version } from "./schemas";
import { useVersions } from "./useOwn";
import { Panel } from "../../parts/Panel";

type Row = Omit<Version, "published_at" | "published_by"> & { when: string; by: string };

export function Versions(props: { layout: string; refresh: () => Promise<void> }): React.ReactNode {
  const { message } = App.useApp();
  const versions = useVersions(props.layout);
  const restore = useMutation({
    mutationFn: (version: number) => call(`own-layouts/${props.layout}/restore`, { method: "POST", body: { version } }),
    onSuccess: async (_, version) => {
      await props.refresh();
      void message.success(version ? `Version ${version} holds again.` : "The base layouts hold again.");
    },
    onError: (error) => void message.error(error.message),
  });
  if (!versions.data?.length) return null;
  const rows: Row[] = [
    ...versions.data.map((version) => ({
      number: version.number,
      in_force: version.in_force,
      when: readable(version.published_at),
      by: version.published_by,
    })),
    { number: 0, in_force: !versions.data.some((version) => version.in_force), when: "", by: "" },
  ];
  return (
    <Panel title="Versions" apart>
      <Table<Row>
        rowKey="number"
        size="small"
        pagination={false}
        scroll={{ x: true }}
        dataSource={rows}
        columns={[
          { title: "Version", render: (_, row) => (row.number ? `Version ${row.number}` : "Without this layout") },
          { title: "Published", dataIndex: "when" },
          { title: "By", dataIndex: "by" },
          {
            title: "State",
            render: (_, row) =>
              row.in_force ? (
                <StateTag tone="fine">in force</StateTag>
              ) : (
                <Button size="small" loading={restore.isPending && restore.variables === row.number} onClick={() => restore.mutate(row.number)}>
                  {row.number ? `Restore version ${row.number}` : "Restore the base layouts"}
                </Button>
              ),
          },
        ]}
      />
    </Panel>
  );
}
