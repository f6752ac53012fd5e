/** Trying a target on its page: a practice address is written, and it is read what the page made of it. */

import { useMutation } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useState } from "react";

import { ErrorAlert } from "../parts/ErrorAlert";
import { Panel } from "../parts/Panel";
import { PageState } from "./PageState";
import { type PageWindow, pageAddress } from "./pageWindow";
import { type TargetDocument, tryTarget } from "./useTargets";

export function TryOnPage({ document, page }: { document: TargetDocument; page: PageWindow }): React.ReactNode {
  const [first = ""] = document.origins ?? [];
  const path = (document.paths ?? [])[0]?.replaceAll("*", "") ?? "/";
  const [text, setText] = useState(first ? `${first}${path}` : "");
  const url = pageAddress(text);
  const trying = useMutation({
    mutationFn: (address: string) => tryTarget(document, address),
    onSuccess: ({ fill }) => page.write(document.fields ?? [], fill.values as Record<string, string>),
  });
  return (
    <Panel title="Try it on the page" apart>
      <p>A practice address is written into the page, as a fill would write it: into your browser's window alone. The page needs the line of HTML.</p>
      <div className="page-row">
        <Input aria-label="Address of the page" value={text} maxLength={500} onChange={(event) => setText(event.target.value)} />
        <Button disabled={!url} loading={page.state === "opening"} onClick={() => url && page.open(url.href)}>
          Open it
        </Button>
        {(document.addresses ?? []).map((address) => (
          <Button key={address.key} type="primary" disabled={page.state !== "open"} loading={trying.isPending} onClick={() => trying.mutate(address.key)}>
            Fill “{address.label}”
          </Button>
        ))}
      </div>
      <div role="status">
        {!page.tried && <PageState page={page} />}
        {page.tried && trying.data && (
          <>
            <p>
              Written: {trying.data.label}. What stands on the page now is said at each field above.
            </p>
            <ul className="tried-said">
              {page.tried.said.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          </>
        )}
      </div>
      {trying.isError && <ErrorAlert error={trying.error} />}
    </Panel>
  );
}
