/** How keys are pressed, and what is read back. */

import { Checkbox, Collapse, Form, Input, InputNumber, Select } from "antd";

import type { Writing } from "./usePrograms";
import { CHECKS, WAYS } from "./words";

const KEYS: { name: "next_key" | "previous_key" | "line_key" | "paste_key" | "clear_keys"; label: string }[] = [
  { name: "next_key", label: "Next field" },
  { name: "previous_key", label: "Field before" },
  { name: "line_key", label: "New line" },
  { name: "paste_key", label: "Paste" },
  { name: "clear_keys", label: "Emptied by a key of its own" },
];

export function WritingSettings(props: { writing: Writing; name: string; change: (writing: Writing) => void }): React.ReactNode {
  const { writing, name, change } = props;
  const id = (of: string): string => `writing-${name}-${of}`;
  return (
    <Collapse
      className="plan-settings"
      items={[
        {
          key: "settings",
          label: "Keys, and what is read back",
          children: (
            <Form layout="vertical" requiredMark={false} className="setting-grid">
              <Form.Item label="A text is" htmlFor={id("by")}>
                <Select id={id("by")} value={writing.by} options={WAYS} onChange={(by) => change({ ...writing, by })} />
              </Form.Item>
              <Form.Item label="Between two keys, in ms" htmlFor={id("pace")}>
                <InputNumber id={id("pace")} min={0} max={1000} value={writing.pace_ms} onChange={(value) => change({ ...writing, pace_ms: value ?? 2 })} />
              </Form.Item>
              <Form.Item label="Afterwards" htmlFor={id("check")}>
                <Select id={id("check")} value={writing.check} options={CHECKS} onChange={(check) => change({ ...writing, check })} />
              </Form.Item>
              {KEYS.map((key) => (
                <Form.Item key={key.name} label={key.label} htmlFor={id(key.name)}>
                  <Input id={id(key.name)} value={writing[key.name]} maxLength={40} placeholder={key.name === "clear_keys" ? "Ctrl+U" : ""} onChange={(event) => change({ ...writing, [key.name]: event.target.value })} />
                </Form.Item>
              ))}
              <div>
                <Checkbox checked={writing.jumps} onChange={(event) => change({ ...writing, jumps: event.target.checked })}>
                  A full field passes on by itself
                </Checkbox>
                <Checkbox checked={writing.back_first} onChange={(event) => change({ ...writing, back_first: event.target.checked })}>
                  The window is brought to the front first
                </Checkbox>
              </div>
            </Form>
          ),
        },
      ]}
    />
  );
}
