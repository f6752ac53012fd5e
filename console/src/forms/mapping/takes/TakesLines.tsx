/** Lines as the country of the address writes them. */

import { Select } from "antd";

import type { Rule } from "../../../api/schemas";
import type { TakesProps } from "./props";

const LINES: { value: NonNullable<Rule["lines"]>; label: string }[] = [
  { value: "street", label: "The line with the street" },
  { value: "all", label: "All lines" },
  ...[1, 2, 3, 4, 5, 6].map((value) => ({ value, label: `Line ${value}` })),
];

export function TakesLines({ rule, name, change }: TakesProps): React.ReactNode {
  return (
    <>
      <Select
        aria-label={`Lines of ${name}`}
        className="whole-width"
        value={rule.lines ?? "street"}
        options={LINES}
        onChange={(lines: NonNullable<Rule["lines"]>) => change({ ...rule, lines })}
      />
      {rule.lines === "street" && <span className="hint">Number and street as each country has them, without what other rules take.</span>}
    </>
  );
}
