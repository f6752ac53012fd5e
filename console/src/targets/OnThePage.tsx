/** The line of HTML that attaches a target, with a key that is made for it. */

import { Alert, Button } from "antd";
import { useState } from "react";

import { ErrorAlert } from "../parts/ErrorAlert";
import { makeKey, useKeyChange } from "../keys/useKeys";
import { CopiedLine, scriptLine } from "./CopiedLine";
import type { TargetDocument } from "./useTargets";

export function OnThePage({ document, isPublished }: { document: TargetDocument; isPublished: boolean }): React.ReactNode {
  const making = useKeyChange(makeKey);
  const [secret, setSecret] = useState("");
  const origins = document.origins ?? [];
  const make = (): void =>
    making.mutate(
      { kind: "browser", name: document.title, origins, targets: [document.key], forms: [], scopes: [], expires_at: null },
      { onSuccess: (made) => setSecret(made.secret) },
    );
  return (
    <div className="new-target">
      {!isPublished && <Alert className="space-below" type="info" showIcon title="The target is not published: a page that attaches to it is told so." />}
      <p>The page needs this line, with a key that is for this target alone:</p>
      <CopiedLine text={scriptLine(document.key, secret || undefined)} />
      {secret ? (
        <p>The key is shown once. It is public, as the page is; it can be used on {origins.join(", ")} and nowhere else.</p>
      ) : (
        <p>
          <Button onClick={make} loading={making.isPending} disabled={!origins.length || !isPublished}>
            Make a key for it
          </Button>{" "}
          <span className="hint">{!origins.length ? "Say first on which origin the page is." : "Keys that are there already are listed under Keys."}</span>
        </p>
      )}
      {making.isError && <ErrorAlert error={making.error} />}
    </div>
  );
}
