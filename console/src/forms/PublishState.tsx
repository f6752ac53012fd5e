import { Tag } from "antd";

import type { FormSummary } from "../api/shapes";

/** Whether people meet what the draft says. */
export function PublishState({ form }: { form: FormSummary }): React.ReactNode {
  if (form.published_version === null) return <Tag color="gold">not published</Tag>;
  return (
    <>
      <Tag color="green">version {form.published_version}</Tag>
      {form.draft_differs && <Tag color="gold">draft differs</Tag>}
    </>
  );
}
