/** A line of HTML to be copied onto a page. */

import { App, Button } from "antd";

/** The line that loads the script; with a target and a key, it attaches that. */
export function scriptLine(target?: string, key?: string): string {
  const given = target ? ` data-target="${target}" data-key="${key ?? "anl_browser_…"}"` : "";
  return `<script type="module" src="${location.origin}/embed/attach.js"${given}></script>`;
}

export function CopiedLine({ text }: { text: string }): React.ReactNode {
  const { message } = App.useApp();
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      void message.success("Copied.");
    } catch {
      void message.warning("The browser does not let this page copy: select the line and copy it.");
    }
  };
  return (
    <>
      <pre className="line-of-html" tabIndex={0} aria-label="Line of HTML">
        {text}
      </pre>
      <Button size="small" onClick={() => void copy()}>
        Copy the line
      </Button>
    </>
  );
}
