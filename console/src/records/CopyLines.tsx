/** The address as it is printed, with a button that copies it. */

import { CheckOutlined, CopyOutlined } from "@ant-design/icons";
import { App, Button } from "antd";
import { useState } from "react";

export function CopyLines({ lines, label }: { lines: readonly string[]; label: string }): React.ReactNode {
  const { message } = App.useApp();
  const [isCopied, setCopied] = useState(false);
  const text = lines.join("\n");
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied(true);
      setTimeout(() => setCopied(false), 3000);
    } catch {
      void message.warning("The browser does not let this page copy: select the lines and copy them.");
    }
  };
  return (
    <div className="printed">
      <address className="lines" dir="auto">{text}</address>
      <Button size="small" icon={isCopied ? <CheckOutlined aria-hidden /> : <CopyOutlined aria-hidden />} aria-label={`Copy the address ${label}`} onClick={() => void copy()}>
        {isCopied ? "Copied" : "Copy"}
      </Button>
    </div>
  );
}
