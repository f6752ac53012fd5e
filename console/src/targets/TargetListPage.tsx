/** All targets: pages that are not ours, and whether they can be attached to. */

import { Button, Empty, Table } from "antd";
import { Link } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { readable } from "../parts/times";
import { type TargetSummary, useTargets } from "./useTargets";

export default function TargetListPage(): React.ReactNode {
  const targets = useTargets();
  if (targets.isError) return <LoadError error={targets.error} again={() => void targets.refetch()} />;
  return (
    <>
      <PageHead title="Pages of others" about="Forms that Anchorline does not make, such as a shop's checkout: a target says what is where on them, and one line of HTML brings the finder there.">
        <Link to="/targets/new">
          <Button type="primary" tabIndex={-1}>
            New page target
          </Button>
        </Link>
      </PageHead>
      <Table<TargetSummary>
        rowKey="key"
        loading={targets.isPending}
        dataSource={targets.data?.targets ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is none yet. Open a page, or paste its HTML, and say what its inputs are." /> }}
        columns={[
          {
            title: "Page",
            render: (_, target) => (
              <>
                <Link to={`/targets/${target.key}`}>{target.title}</Link>
                <div className="key">{target.key}</div>
              </>
            ),
          },
          { title: "State", render: (_, target) => <PublishState state={target} /> },
          { title: "Changed", render: (_, target) => readable(target.changed_at) },
        ]}
      />
    </>
  );
}
