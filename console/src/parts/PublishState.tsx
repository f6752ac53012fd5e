import { StateTag } from "./StateTag";
import type { Drafted } from "./documents/kind";

/** Whether people meet what the draft says. */
export function PublishState({ state }: { state: Drafted }): React.ReactNode {
  if (state.published_version === null) return <StateTag tone="waits">not published</StateTag>;
  return (
    <>
      <StateTag tone="fine">version {state.published_version}</StateTag>
      {state.draft_differs && <StateTag tone="waits">draft differs</StateTag>}
    </>
  );
}
