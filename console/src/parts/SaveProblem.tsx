import { Alert } from "antd";

import type { Place } from "../api/call";
import type { AnyDraft } from "./useDraft";

/** Why a draft could not be saved or published, place by place. */
export function SaveProblem({ draft }: { draft: AnyDraft }): React.ReactNode {
  const error = draft.save.error ?? draft.publish.error;
  if (!error) return null;
  const places = "places" in error ? (error.places as Place[]) : [];
  return (
    <Alert
      type="error"
      role="alert"
      showIcon
      className="space-below"
      title={error.message}
      description={places.map((p) => (
        <div key={p.pointer}>
          <span className="key">{p.pointer}</span> {p.detail}
        </div>
      ))}
    />
  );
}
