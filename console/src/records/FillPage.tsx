/** A record that is made, or filled again: the form itself, with the same elements both times. */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Skeleton } from "antd";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { call } from "../api/call";
import { everyPage } from "../api/pages";
import type { FormSummary, RecordAnswer } from "../api/schemas";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { useUnsaved } from "../parts/useUnsaved";
import { useLinkedRecord } from "./NewLinkedRecord";
import { useFormElement } from "./useFormElement";
import { PageBoundary } from "../shell/PageBoundary";

export default function FillPage(): React.ReactNode {
  const { form, record } = useParams();
  const kept = useQuery({
    queryKey: ["record", record],
    queryFn: () => call<RecordAnswer>(`records/${encodeURIComponent(record ?? "")}`),
    enabled: Boolean(record),
  });
  const forms = useQuery({ queryKey: ["forms"], queryFn: async () => ({ forms: await everyPage<FormSummary>("forms", "forms") }) });
  if (kept.isError) return <LoadError error={kept.error} again={() => void kept.refetch()} />;
  if (record && kept.isPending) return <Skeleton active />;
  const key = kept.data?.form ?? form ?? "";
  const title = forms.data?.forms.find((one) => one.key === key)?.title ?? key;
  return (
    <>
      <PageHead
        title={record ? "Change a record" : "New record"}
        about={
          kept.data ? (
            <>
              <Link to={`/records/${kept.data.id}`} dir="auto">{kept.data.label}</Link> · {title}
            </>
          ) : (
            title
          )
        }
      />
      <Filling key={`${key} ${record ?? ""}`} form={key} record={record} />
    </>
  );
}

function Filling({ form, record }: { form: string; record: string | undefined }): React.ReactNode {
  const [isChanged, setChanged] = useState(false);
  const [kept, setKept] = useState("");
  const { message } = App.useApp();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { dialog, makeRecord } = useLinkedRecord();
  useUnsaved(isChanged && !kept);
  // After the guard has heard of it: else leaving would ask.
  useEffect(() => {
    if (kept) void navigate(`/records/${kept}`);
  }, [kept, navigate]);
  const place = useFormElement({
    form,
    record,
    level: 2,
    makeRecord,
    changed: () => setChanged(true),
    submitted: ({ id }) => {
      for (const key of [["record", id], ["history", id], ["records"]]) void queries.invalidateQueries({ queryKey: key });
      void message.success(record ? "The record is changed." : "The record is kept.");
      setKept(id);
    },
  });
  return (
    <>
      <div className="fill-form" ref={place} />
      <PageBoundary>{dialog}</PageBoundary>
    </>
  );
}
