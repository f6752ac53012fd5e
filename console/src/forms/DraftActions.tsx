import { App, Button } from "antd";

import type { DraftState } from "./useDraft";

/** Save, discard, publish: what can be done just now. */
export function DraftActions({ draft }: { draft: DraftState }): React.ReactNode {
  const { message } = App.useApp();
  const form = draft.kept.data?.body.form;
  const publishable = !draft.changed && (form?.draft_differs || form?.published_version === null);
  return (
    <>
      {draft.changed && <Button onClick={draft.discard}>Discard changes</Button>}
      <Button
        disabled={!draft.changed}
        loading={draft.save.isPending}
        onClick={() => draft.save.mutate(undefined, { onSuccess: () => void message.success("Draft saved.") })}
      >
        Save draft
      </Button>
      <Button
        type="primary"
        disabled={!publishable}
        loading={draft.publish.isPending}
        onClick={() =>
          draft.publish.mutate(undefined, {
            onSuccess: (published) => void message.success(`Version ${published.published_version} is published.`),
          })
        }
      >
        Publish
      </Button>
    </>
  );
}
