/** How keys are pressed, and what is read back. */

import { Checkbox, Collapse, Form, Input, InputNumber, Select } from "antd";

import type { Part, Plan } from "./usePrograms";
import { CHECKS, WAYS } from "./words";

const KEYS: { name: "next_key" | "previous_key" | "line_key" | "paste_key" | "clear_keys"; label: string }[] = [
  { name: "next_key", label: "Next field" },
  { name: "previous_key", label: "Field before" },
  { name: "line_key", label: "New line" },
  { name: "paste_key", label: "Paste" },
  { name: "clear_keys", label: "Emptied by a key of its own" },
];

export function PlanSettings(props: { plan: Plan; parts: Part[]; name: string; change: (plan: Plan) => void }): React.ReactNode {
  const { plan, parts, name, change } = props;
  const id = (of: string): string => `plan-${name}-${of}`;
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
                <Select id={id("by")} value={plan.by} options={WAYS} onChange={(by) => change({ ...plan, by })} />
              </Form.Item>
              <Form.Item label="Between two keys, in ms" htmlFor={id("pace")}>
                <InputNumber id={id("pace")} min={0} max={1000} value={plan.pace_ms} onChange={(value) => change({ ...plan, pace_ms: value ?? 2 })} />
              </Form.Item>
              <Form.Item label="Afterwards" htmlFor={id("check")}>
                <Select id={id("check")} value={plan.check} options={CHECKS} onChange={(check) => change({ ...plan, check })} />
              </Form.Item>
              {KEYS.map((key) => (
                <Form.Item key={key.name} label={key.label} htmlFor={id(key.name)}>
                  <Input id={id(key.name)} value={plan[key.name]} maxLength={40} placeholder={key.name === "clear_keys" ? "Ctrl+U" : ""} onChange={(event) => change({ ...plan, [key.name]: event.target.value })} />
                </Form.Item>
              ))}
              <Form.Item label="Never offered for copying" htmlFor={id("offered")}>
                <Select id={id("offered")} mode="multiple" value={plan.not_offered} options={parts.map((one) => ({ value: one.key, label: one.label ?? one.key }))} onChange={(not_offered: string[]) => change({ ...plan, not_offered })} />
              </Form.Item>
              <div>
                <Checkbox checked={plan.jumps} onChange={(event) => change({ ...plan, jumps: event.target.checked })}>
                  A full field passes on by itself
                </Checkbox>
                <Checkbox checked={plan.back_first} onChange={(event) => change({ ...plan, back_first: event.target.checked })}>
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
