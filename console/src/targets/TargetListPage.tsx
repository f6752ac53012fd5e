/** All targets: pages and programs that are not ours, and whether they are published. */

import { Button, Empty, Table } from "antd";
import { Link } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { readable } from "../parts/times";
import { WordPrograms } from "./programs/WordPrograms";
import { type TargetSummary, useTargets } from "./useTargets";

export default function TargetListPage(): React.ReactNode {
  const targets = useTargets();
  if (targets.isError) return <LoadError error={targets.error} again={() => void targets.refetch()} />;
  return (
    <>
      <PageHead title="Targets" about="Forms that Anchorline does not make: a page, such as a shop's checkout, which one line of HTML brings the finder to; or a program on the desktop, which anchorline desk writes into.">
        <WordPrograms targets={targets.data?.targets ?? []} />
        <Link to="/targets/new">
          <Button type="primary" tabIndex={-1}>
            New page target
          </Button>
        </Link>
        <Link to="/targets/new-program">
          <Button type="primary" tabIndex={-1}>
            New program target
          </Button>
        </Link>
      </PageHead>
      <Table<TargetSummary>
        rowKey="key"
        loading={targets.isPending}
        dataSource={targets.data?.targets ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is none yet. Open a page and say what its inputs are, or press the key of anchorline desk in a program." /> }}
        columns={[
          {
            title: "Target",
            render: (_, target) => (
              <>
                <Link to={`/targets/${target.key}`}>{target.title}</Link>
                <div className="key">{target.key}</div>
              </>
            ),
          },
          { title: "Kind", render: (_, target) => (target.kind === "program" ? "Program" : "Page") },
          { title: "State", render: (_, target) => <PublishState state={target} /> },
          { title: "Changed", render: (_, target) => readable(target.changed_at) },
        ]}
      />
    </>
  );
}
