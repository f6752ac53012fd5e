import { Input } from "antd";

import { Setting } from "./Setting";

/** A setting that is a text: of one line, or of several. */
export function TextSetting(props: {
  label: string;
  value: string | null | undefined;
  change: (value: string) => void;
  hint?: React.ReactNode;
  placeholder?: string;
  lines?: boolean;
  most?: number;
  left?: () => void;
}): React.ReactNode {
  const { label, value, change, hint, placeholder, lines, most = 200, left } = props;
  const shared = {
    value: value ?? "",
    maxLength: most,
    ...(placeholder ? { placeholder } : {}),
    ...(left ? { onBlur: left } : {}),
  };
  return (
    <Setting label={label} hint={hint}>
      {(id) =>
        lines ? (
          <Input.TextArea id={id} autoSize={{ minRows: 2, maxRows: 8 }} {...shared} onChange={(event) => change(event.target.value)} />
        ) : (
          <Input id={id} {...shared} onChange={(event) => change(event.target.value)} />
        )
      }
    </Setting>
  );
}
