/** Facts of an address. */

import { Select } from "antd";

import { FACTS } from "../../../api/vocabulary";
import { JoinInput } from "../JoinInput";
import type { TakesProps } from "./props";

export function TakesFacts({ rule, name, change }: TakesProps): React.ReactNode {
  const facts = rule.facts ?? [];
  return (
    <>
      <Select
        mode="multiple"
        aria-label={`Facts of ${name}`}
        className="whole-width"
        value={facts}
        options={Object.entries(FACTS).map(([value, label]) => ({ value, label }))}
        onChange={(next) => next.length && change({ ...rule, facts: next })}
      />
      {facts.length > 1 && <JoinInput rule={rule} of={`the facts of ${name}`} change={change} />}
    </>
  );
}
