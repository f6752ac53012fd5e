/** Whether what was typed is on the service: said quietly, or loudly where it is not. */

import { Button } from "antd";

import type { DraftKeeper } from "./keeper";
import type { DraftOf } from "./kind";

export function Kept<Document, Body extends DraftOf<Document>>({ keeper }: { keeper: DraftKeeper<Document, Body> }): React.ReactNode {
  const { state, kept } = keeper;
  const at = new Intl.DateTimeFormat("en-GB", { timeStyle: "short" }).format(new Date(kept.body.summary.changed_at));
  const text = {
    kept: `kept ${at}`,
    waiting: "keeping …",
    keeping: "keeping …",
    offline: "The service does not answer. What you did is kept in this browser, and sent by itself.",
    "signed-out": "Sign in again: what you did is kept in this browser until then.",
    refused: state.status === "refused" ? `Not kept: ${[state.message, ...state.places.map((place) => place.detail)].join(" ")}` : "",
    conflict: "Somebody else has changed the same.",
  }[state.status];
  const isQuiet = ["kept", "waiting", "keeping"].includes(state.status);
  return (
    <span role="status" className={isQuiet ? "kept-state hint" : "kept-state wrong"}>
      {text}
      {(state.status === "offline" || state.status === "refused") && (
        <Button type="link" size="small" onClick={() => keeper.retry()}>
          Try now
        </Button>
      )}
    </span>
  );
}
