import { useQuery } from "@tanstack/react-query";
import { Button, Card, Skeleton } from "antd";

import { call } from "../../api/call";
import type { ReadyMade } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { LoadError } from "../../parts/LoadError";
import { bare } from "../design/bare";
import { isSlot, itemsOf, nameOf } from "../design/edits";
import { useBegin } from "./useBegin";

export function FromReadyMade(): React.ReactNode {
  const begin = useBegin();
  const ready = useQuery({
    queryKey: ["ready-made-forms"],
    queryFn: () => call<{ forms: ReadyMade[] }>("ready-made-forms"),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (ready.isError) return <LoadError error={ready.error} again={() => void ready.refetch()} />;
  if (!ready.data) return <Skeleton active />;
  return (
    <>
      {begin.isError && <ErrorAlert error={begin.error} />}
      <div className="cards">
        {ready.data.forms.map((form) => (
          <Card
            key={form.name}
            size="small"
            title={<h2>{form.title}</h2>}
            extra={
              <Button type="primary" aria-label={`Begin with ${form.title}`} loading={begin.isPending} onClick={() => begin.mutate(bare(form.document))}>
                Begin
              </Button>
            }
          >
            <p className="first">{form.says}</p>
            <p className="hint last">
              {itemsOf(form.document)
                .filter((item) => isSlot(item) || !["page", "section", "note"].includes(item.type ?? "text"))
                .map(nameOf)
                .join(" · ")}
            </p>
          </Card>
        ))}
      </div>
    </>
  );
}
