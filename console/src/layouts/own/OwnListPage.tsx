/** All own layouts. */

import { Button, Empty, Table } from "antd";
import { Link } from "react-router";

import { LoadError } from "../../parts/LoadError";
import { PageHead } from "../../parts/PageHead";
import { PublishState } from "../../parts/PublishState";
import { StateTag } from "../../parts/StateTag";
import { readable } from "../../parts/times";
import { useLayouts } from "../layouts";
import type { OwnSummary } from "./schemas";
import { useForms, useOwnLayouts } from "./useOwn";

export default function OwnListPage(): React.ReactNode {
  const own = useOwnLayouts();
  const layouts = useLayouts();
  const forms = useForms();
  if (own.isError) return <LoadError error={own.error} again={() => void own.refetch()} />;
  const countries = new Map((layouts.data ?? []).map((entry) => [entry.country_code, entry.name]));
  const titles = new Map((forms.data ?? []).map((form) => [form.key, form.title]));
  const named = (codes: string[]): string => {
    const names = codes.slice(0, 4).map((code) => countries.get(code) ?? code);
    return names.join(", ") + (codes.length > 4 ? ` and ${codes.length - 4} more` : "");
  };
  return (
    <>
      <PageHead
        title="Own layouts"
        about={
          <>
            What you want otherwise than the <Link to="/layouts">shipped layouts</Link>. Only the differences are kept,
            so corrections to the shipped ones still come through.
          </>
        }
      >
        <Link to="/layouts/own/new">
          <Button type="primary" tabIndex={-1}>
            New own layout
          </Button>
        </Link>
      </PageHead>
      <Table<OwnSummary>
        rowKey="key"
        loading={own.isPending}
        dataSource={own.data ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is none yet: every country is as it ships." /> }}
        columns={[
          {
            title: "Own layout",
            render: (_, layout) => (
              <>
                <Link to={`/layouts/own/${layout.key}`}>{layout.title}</Link>
                <div className="key">{layout.key}</div>
              </>
            ),
          },
          { title: "Countries", render: (_, layout) => named(layout.countries) },
          {
            title: "Where",
            render: (_, layout) => layout.forms.map((key) => titles.get(key) ?? key).join(", ") || "everywhere",
          },
          {
            title: "State",
            render: (_, layout) => (
              <>
                <PublishState state={layout} />
                {layout.conflicts > 0 && <StateTag tone="waits">{layout.conflicts} to look at</StateTag>}
              </>
            ),
          },
          { title: "Changed", render: (_, layout) => readable(layout.changed_at) },
        ]}
      />
    </>
  );
}
