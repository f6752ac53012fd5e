/** All forms. */

import { PlusOutlined } from "@ant-design/icons";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button, Empty, Table, Tag } from "antd";
import { Link, useNavigate } from "react-router";

import { call } from "../api/call";
import type { FormSummary } from "../api/schemas";
import { ErrorAlert } from "../parts/ErrorAlert";
import { counted } from "../parts/formatting";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { readable } from "../parts/times";
import { useForms } from "./useForms";

export default function FormListPage(): React.ReactNode {
  const forms = useForms();
  const navigate = useNavigate();
  const remove = useRemoval();
  if (forms.isError) return <LoadError error={forms.error} again={() => void forms.refetch()} />;
  return (
    <>
      <PageHead title="Forms" about="Web forms are filled by anyone at their public page; record forms by staff.">
        <Button type="primary" icon={<PlusOutlined aria-hidden />} onClick={() => void navigate("/forms/new")}>
          New form
        </Button>
      </PageHead>
      {remove.error && <ErrorAlert error={remove.error} />}
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
          {
            title: <span className="visually-hidden">What can be done</span>,
            render: (_, form) =>
              form.record_count === 0 ? (
                <Button size="small" danger aria-label={`Delete ${form.title}`} onClick={() => remove.ask(form)}>
                  Delete
                </Button>
              ) : null,
          },
        ]}
      />
    </>
  );
}

/** Deleting a form that has no records, after asking. */
function useRemoval() {
  const { modal, message } = App.useApp();
  const queries = useQueryClient();
  const removal = useMutation({
    mutationFn: (form: FormSummary) => call<void>(`forms/${form.key}`, { method: "DELETE" }),
    onSuccess: async (_, form) => {
      await queries.invalidateQueries({ queryKey: ["forms"] });
      void message.success(`“${form.title}” is deleted.`);
    },
  });
  const ask = (form: FormSummary): void =>
    void modal.confirm({
      title: `Delete “${form.title}”?`,
      content: "Its draft and all its versions are deleted. It has no records.",
      okText: "Delete",
      okButtonProps: { danger: true },
      cancelText: "Keep it",
      autoFocusButton: "cancel",
      icon: null,
      onOk: () => removal.mutateAsync(form).catch(() => undefined),
    });
  return { ask, error: removal.error };
}
