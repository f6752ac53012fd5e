/** Published versions of a form; each can be looked at and gone back to. */

import { useQuery } from "@tanstack/react-query";
import { Spin } from "antd";

import { call } from "../../api/call";
import type { FormAnswer, FormSummary } from "../../api/schemas";
import { VersionsDrawer as AnyVersions } from "../../parts/documents/VersionsDrawer";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { FORMS } from "../kind";
import { PastForm } from "./PastForm";
import type { Design } from "./useDesign";

export function VersionsDrawer(props: { form: string; design: Design; close: () => void }): React.ReactNode {
  const { form, design, close } = props;
  return (
    <AnyVersions<FormSummary>
      kind={FORMS}
      document={form}
      etag={design.keeper.kept.etag}
      restored={async (answer) => {
        await design.keeper.catchUp();
        design.keeper.published(answer);
        await design.refresh();
      }}
      close={close}
      look={(version) => <Looked form={form} version={version} />}
    />
  );
}

function Looked({ form, version }: { form: string; version: number }): React.ReactNode {
  const answer = useQuery({
    queryKey: ["version", form, version],
    queryFn: () => call<FormAnswer>(`forms/${form}/versions/${version}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (answer.isError) return <ErrorAlert error={answer.error} />;
  return answer.data ? <PastForm form={form} answer={answer.data} /> : <Spin />;
}
