/** One record: its addresses with lines and components, and everything that was filled in. */

import { useQuery } from "@tanstack/react-query";
import { EditOutlined } from "@ant-design/icons";
import { Button, Descriptions, Skeleton } from "antd";
import { Link, useNavigate, useParams } from "react-router";

import { call } from "../api/call";
import { everyPage } from "../api/pages";
import type { FormSummary, RecordAnswer, RecordHistory } from "../api/schemas";
import { Named } from "../parts/Named";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { readable } from "../parts/times";
import { AddressCard } from "./AddressCard";
import { Panel } from "../parts/Panel";
import { valueAt } from "../../../embed/src/dictionary";

export default function RecordPage(): React.ReactNode {
  const { record: id = "" } = useParams();
  const navigate = useNavigate();
  const record = useQuery({
    queryKey: ["record", id],
    queryFn: () => call<RecordAnswer>(`records/${encodeURIComponent(id)}`),
  });
  const forms = useQuery({
    queryKey: ["forms"],
    queryFn: async () => ({ forms: await everyPage<FormSummary>("forms", "forms") }),
  });
  const history = useQuery({
    queryKey: ["history", id],
    queryFn: () => call<RecordHistory>(`records/${encodeURIComponent(id)}/history`),
    enabled: (record.data?.revision ?? 1) > 1,
  });
  if (record.isError) return <LoadError error={record.error} again={() => void record.refetch()} />;
  if (record.isPending) return <Skeleton active />;
  const { data } = record;
  return (
    <>
      <PageHead
        title={<span dir="auto">{data.label}</span>}
        about={
          <>
            <Link to={`/forms/${data.form}`}>
              {forms.data?.forms.find((form) => form.key === data.form)?.title ?? data.form}
            </Link>, version {data.form_version}, made{" "}
            {readable(data.made_at)} by {data.made_by} · <span className="key">{data.id}</span>
            {data.changed_at && <div>Changed {readable(data.changed_at)} by {data.changed_by}</div>}
          </>
        }
      >
        <Button type="primary" icon={<EditOutlined aria-hidden />} onClick={() => void navigate(`/records/${data.id}/edit`)}>
          Change
        </Button>
      </PageHead>
      <div className="cards">
        {Object.entries(data.slots).map(([slot, address]) => (
          <AddressCard key={slot} slot={slot} address={address} fields={data.labels} history={history.data} />
        ))}
      </div>
      <Panel title="Fields" apart>
        <Descriptions
          layout="vertical"
          column={{ xs: 1, sm: 2, md: 3 }}
          size="small"
          items={Object.entries(data.values).map(([key, value]) => ({
            key,
            label: <Named label={valueAt(data.labels, key)} name={key} />,
            children: (
              <span dir="auto">
                {valueAt(data.texts, key) ?? String(value)}
                {valueAt(data.typed, key) && valueAt(data.typed, key) !== valueAt(data.texts, key) && <div className="hint">typed: {valueAt(data.typed, key)}</div>}
              </span>
            ),
          }))}
        />
      </Panel>
      {Object.keys(data.agreed).length > 0 && (
        <Panel title="Agreed to" apart>
          {Object.entries(data.agreed).map(([key, text]) => (
            <p key={key} dir="auto" lang={data.language} className="last">
              {text}
            </p>
          ))}
        </Panel>
      )}
    </>
  );
}
