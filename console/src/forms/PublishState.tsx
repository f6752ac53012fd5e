import type { FormSummary } from "../api/shapes";
import { StateTag } from "../parts/StateTag";

/** Whether people meet what the draft says. */
export function PublishState({ form }: { form: FormSummary }): React.ReactNode {
  if (form.published_version === null) return <StateTag tone="waits">not published</StateTag>;
  return (
    <>
      <StateTag tone="fine">version {form.published_version}</StateTag>
      {form.draft_differs && <StateTag tone="waits">draft differs</StateTag>}
    </>
  );
}
