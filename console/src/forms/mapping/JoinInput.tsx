/** What stands between two texts; a joint that is only a space must be seen to be understood. */

import { Input } from "antd";

import type { Rule } from "../../api/schemas";

const VISIBLE_SPACE = "␣";
const VISIBLE_BREAK = "⏎";

export function JoinInput(props: { rule: Rule; of: string; change: (rule: Rule) => void }): React.ReactNode {
  const { rule, of, change } = props;
  return (
    <label className="rule-setting inline">
      joined by
      <Input
        size="small"
        aria-label={`What joins ${of}; ${VISIBLE_SPACE} is a space, ${VISIBLE_BREAK} a new line`}
        maxLength={20}
        value={(rule.join ?? " ").replaceAll(" ", VISIBLE_SPACE).replaceAll("\n", VISIBLE_BREAK)}
        onChange={(event) => change({ ...rule, join: event.target.value.replaceAll(VISIBLE_SPACE, " ").replaceAll(VISIBLE_BREAK, "\n") })}
      />
    </label>
  );
}
