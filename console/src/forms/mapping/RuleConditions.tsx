/** When a rule applies, and what it does to a field that an earlier one has written. */

import { Checkbox, Input, Select } from "antd";

import type { Rule } from "../../api/schemas";
import { JoinInput } from "./JoinInput";
import { IF_WRITTEN } from "./rules";

export function RuleConditions(props: { rule: Rule; at: number; name: string; change: (rule: Rule) => void }): React.ReactNode {
  const { rule, at, name, change } = props;
  const isSet = Boolean(rule.when || rule.otherwise || rule.if_written);
  return (
    <details className="rule-more" open={isSet || undefined}>
      <summary>When it applies</summary>
      <label className="rule-setting">
        Only when
        <Input
          aria-label={`Condition of ${name}`}
          value={rule.when ?? ""}
          placeholder='use = "business"'
          onChange={(event) => change({ ...rule, when: event.target.value || null })}
        />
      </label>
      {at > 0 && (
        <Checkbox checked={rule.otherwise ?? false} onChange={(event) => change({ ...rule, otherwise: event.target.checked })}>
          Else: only where the rules above did not apply
        </Checkbox>
      )}
      <label className="rule-setting">
        If the field is written already
        <Select
          aria-label={`What ${name} does to a written field`}
          allowClear
          placeholder="nothing said"
          value={rule.if_written ?? null}
          options={Object.entries(IF_WRITTEN).map(([value, label]) => ({ value, label }))}
          onChange={(value: "append" | "instead" | "leave" | undefined) => change({ ...rule, if_written: value ?? null })}
        />
      </label>
      {rule.if_written === "append" && (
        <>
          <JoinInput rule={rule} of={`what is there and the text of ${name}`} change={change} />
          <Checkbox checked={rule.keeps_place ?? false} onChange={(event) => change({ ...rule, keeps_place: event.target.checked })}>
            An empty text keeps its place
          </Checkbox>
        </>
      )}
    </details>
  );
}
