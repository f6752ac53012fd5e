/** The records: searched, sorted, page by page. */

import { useQuery } from "@tanstack/react-query";
import { PlusOutlined } from "@ant-design/icons";
import { Button, Dropdown, Empty, Select, Table } from "antd";
import { Link, useNavigate, useSearchParams } from "react-router";

import { call } from "../api/call";
import { everyPage } from "../api/pages";
import type { FormSummary, RecordPage, RecordSummary } from "../api/schemas";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { SearchBox, useAddressText, withText } from "../parts/SearchBox";
import { readable } from "../parts/times";
import { usePages } from "./usePages";

const SORTS = [
  { value: "newest", label: "Newest first" },
  { value: "oldest", label: "Oldest first" },
  { value: "label", label: "By name, A to Z" },
  { value: "-label", label: "By name, Z to A" },
];
const PAGE_SIZE = 25;

export default function RecordListPage(): React.ReactNode {
  const [place, setPlace] = useSearchParams();
  const form = place.get("form") ?? "";
  const [text, setText] = useAddressText("search");
  const search = place.get("search") ?? "";
  const sort = place.get("sort") ?? "newest";
  const pages = usePages([form, search, sort].join("\n"));
  const query = new URLSearchParams({ search, sort, limit: String(PAGE_SIZE) });
  if (form) query.set("form", form);
  if (pages.cursor) query.set("after", pages.cursor);
  const records = useQuery({
    queryKey: ["records", query.toString()],
    queryFn: () => call<RecordPage>(`records?${query}`),
    placeholderData: (previous) => previous,
  });
  const forms = useQuery({
    queryKey: ["forms"],
    queryFn: async () => ({ forms: await everyPage<FormSummary>("forms", "forms") }),
  });
  const set = (name: string, value: string): void => {
    setPlace((old) => withText(old, name, value));
  };
  if (records.isError) return <LoadError error={records.error} again={() => void records.refetch()} />;
  const titles = new Map(forms.data?.forms.map((f) => [f.key, f.title]));
  const total = records.data?.total ?? 0;
  const first = pages.number * PAGE_SIZE + 1;
  const last = first - 1 + (records.data?.records.length ?? 0);
  return (
    <>
      <PageHead title="Records" about="Filled forms with the addresses that were captured.">
        <NewRecord forms={forms.data?.forms ?? []} chosen={form} />
      </PageHead>
      <div className="controls">
        <SearchBox
          label="Search the records"
          placeholder="Words from anywhere in the record"
          text={text}
          change={setText}
          width="1 1 18rem"
        />
        <Select
          aria-label="Form"
          value={form}
          onChange={(value) => set("form", value)}
          className="form-choice"
          options={[
            { value: "", label: "All forms" },
            ...(forms.data?.forms ?? []).map((f) => ({ value: f.key, label: f.title })),
          ]}
        />
        <Select
          aria-label="Order"
          value={sort}
          onChange={(value) => set("sort", value)}
          className="order-choice"
          options={SORTS}
        />
      </div>
      <Table<RecordSummary>
        rowKey="id"
        loading={records.isPending}
        dataSource={records.data?.records ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{
          emptyText: (
            <Empty description={search || form ? "No record fits." : "There is no record yet: submit a form."} />
          ),
        }}
        columns={[
          {
            title: "Record",
            render: (_, record) => (
              <Link to={`/records/${record.id}`} dir="auto">
                {record.label}
              </Link>
            ),
          },
          { title: "Form", render: (_, record) => titles.get(record.form) ?? record.form },
          { title: "Made", width: 180, render: (_, record) => readable(record.made_at) },
          { title: "By", width: 160, render: (_, record) => <span className="key">{record.made_by}</span> },
        ]}
      />
      <nav aria-label="Pages" className="pages">
        <Button disabled={!pages.number} onClick={pages.back}>
          Previous
        </Button>
        <Button disabled={!records.data?.after} onClick={() => pages.next(records.data?.after ?? "")}>
          Next
        </Button>
        <span role="status">{total ? `${first} to ${last} of ${total.toLocaleString("en")}` : ""}</span>
      </nav>
    </>
  );
}

/** Makes a record of the chosen form, or of one of those that are published. */
function NewRecord({ forms, chosen }: { forms: readonly FormSummary[]; chosen: string }): React.ReactNode {
  const navigate = useNavigate();
  const open = (key: string): void => void navigate(`/records/new/${key}`);
  const published = forms.filter((form) => form.published_version !== null);
  const label = (
    <>
      <PlusOutlined aria-hidden /> New record
    </>
  );
  if (published.some((form) => form.key === chosen)) {
    return <Button type="primary" onClick={() => open(chosen)}>{label}</Button>;
  }
  return (
    <Dropdown
      trigger={["click"]}
      menu={{ items: published.map((form) => ({ key: form.key, label: form.title })), onClick: ({ key }) => open(key) }}
    >
      <Button type="primary" disabled={!published.length}>{label}</Button>
    </Dropdown>
  );
}
