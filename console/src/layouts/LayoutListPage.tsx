/** The layouts of all countries, searched by name or code. */

import { Button, Empty, Table } from "antd";
import { useDeferredValue } from "react";
import { Link } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { SearchBox, useAddressText } from "../parts/SearchBox";
import { FactsTag } from "./FactsTag";
import { type LayoutEntry, useLayouts } from "./layouts";

export default function LayoutListPage(): React.ReactNode {
  const layouts = useLayouts();
  const [text, setText] = useAddressText("q");
  const wanted = useDeferredValue(text.trim().toLocaleLowerCase());
  if (layouts.isError) return <LoadError error={layouts.error} again={() => void layouts.refetch()} />;
  const names = new Map((layouts.data ?? []).map((entry) => [entry.country_code, entry.name]));
  const found = (layouts.data ?? []).filter(
    ({ name, country_code }) =>
      name.toLocaleLowerCase().includes(wanted) || country_code.toLocaleLowerCase() === wanted,
  );
  return (
    <>
      <PageHead
        title="Country layouts"
        about="How each country's address is asked for and written out. Forms take labels, order and lines from here."
      >
        <Link to="/layouts/own">Own layouts</Link>
        <Link to="/layouts/own/new">
          <Button type="primary" tabIndex={-1}>
            New own layout
          </Button>
        </Link>
      </PageHead>
      <div className="search-bar">
        <SearchBox
          label="Name or code of a country"
          placeholder="Name or code of a country"
          text={text}
          change={setText}
          width="0 1 22rem"
        />
        <span role="status" className="hint">
          {layouts.data ? `${found.length} of ${layouts.data.length}` : ""}
        </span>
      </div>
      <Table<LayoutEntry>
        rowKey="country_code"
        size="small"
        loading={layouts.isPending}
        dataSource={found}
        pagination={{ pageSize: 20, showSizeChanger: false, hideOnSinglePage: true }}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description={`No country is called ${text}.`} /> }}
        columns={[
          {
            title: "Country",
            render: (_, entry) => <Link to={`/layouts/${entry.country_code}`}>{entry.name}</Link>,
          },
          { title: "Code", dataIndex: "country_code" },
          { title: "Uses the post of", render: (_, entry) => names.get(entry.post_of) ?? "" },
          {
            title: "Own layouts",
            render: (_, entry) =>
              entry.own.map((key) => (
                <span key={key}>
                  <Link to={`/layouts/own/${key}`}>{key}</Link>{" "}
                </span>
              )),
          },
          { title: "Facts", render: (_, entry) => <FactsTag confidence={entry.confidence} /> },
        ]}
      />
    </>
  );
}
