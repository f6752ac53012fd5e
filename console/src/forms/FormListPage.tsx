/** All forms. */

import { useQuery } from "@tanstack/react-query";
import { Empty, Table, Tag } from "antd";
import { Link } from "react-router";

import { call } from "../api/call";
import type { FormSummary } from "../api/schemas";
import { counted } from "../parts/formatting";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { readable } from "../parts/times";

export default function FormListPage(): React.ReactNode {
  const forms = useQuery({
    queryKey: ["forms"],
    queryFn: () => call<{ forms: FormSummary[] }>("forms"),
  });
  if (forms.isError) return <LoadError error={forms.error} again={() => void forms.refetch()} />;
  return (
    <>
      <PageHead title="Forms" about="Web forms are filled by anyone at their public page; record forms by staff." />
      <Table<FormSummary>
        rowKey="key"
        loading={forms.isPending}
        dataSource={forms.data?.forms ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is no form yet." /> }}
        columns={[
          {
            title: "Form",
            render: (_, form) => (
              <>
                <Link to={`/forms/${form.key}`}>{form.title}</Link>
                <div className="key">{form.key}</div>
              </>
            ),
          },
          { title: "Kind", render: (_, form) => <Tag>{form.kind}</Tag> },
          { title: "State", render: (_, form) => <PublishState state={form} /> },
          {
            title: "Records",
            align: "right",
            render: (_, form) => (
              <Link to={`/records?form=${form.key}`} aria-label={`${counted(form.record_count, "record")} of ${form.title}`}>
                {form.record_count.toLocaleString("en")}
              </Link>
            ),
          },
          { title: "Changed", render: (_, form) => readable(form.changed_at) },
        ]}
      />
    </>
  );
}
