import { App, Button } from "antd";

import type { AnyDraft, Drafted } from "./useDraft";

/** Save, discard, publish: what can be done just now. */
export function DraftActions(props: {
  draft: AnyDraft;
  state: Drafted;
  /** Asks before it publishes; without it, publishing happens at once. */
  ask?: (publish: () => void) => void;
  /** Publishing is of use although the draft does not differ. */
  again?: boolean;
}): React.ReactNode {
  const { draft, state, ask, again } = props;
  const { message } = App.useApp();
  const publishable = !draft.changed && (state.draft_differs || state.published_version === null || again);
  const publish = (): void =>
    draft.publish.mutate(undefined, {
      onSuccess: (published) => void message.success(`Version ${published.published_version} is published.`),
    });
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
        onClick={() => (ask ? ask(publish) : publish())}
      >
        Publish
      </Button>
    </>
  );
}
