/** Components packed into several fields. */

import { InputNumber, Select } from "antd";

import { COMPONENTS } from "../../../api/vocabulary";
import { hasText } from "../fields";
import type { TakesProps } from "./props";
import { valueAt } from "../../../../../embed/src/dictionary";

export function TakesFit({ rule, name, fields, labels, change }: TakesProps): React.ReactNode {
  const fit = rule.fit ?? { into: [] };
  const set = (settings: Partial<typeof fit>): void => change({ ...rule, fit: { ...fit, ...settings } });
  return (
    <>
      <Select
        mode="multiple"
        aria-label={`Parts of ${name}; none: all that no other rule takes`}
        className="whole-width"
        placeholder="all that no other rule takes"
        value={fit.components ?? []}
        options={COMPONENTS.map((value) => ({ value, label: valueAt(labels, value) ?? value }))}
        onChange={(components) => set({ components })}
      />
      <label className="rule-setting">
        Into these fields, line by line
        <Select
          mode="multiple"
          aria-label={`Fields of ${name}, line by line`}
          showSearch={{ filterOption: hasText }}
          value={fit.into}
          options={fields}
          onChange={(into) => into.length && set({ into })}
        />
      </label>
      <label className="rule-setting inline">
        of
        <InputNumber
          size="small"
          aria-label={`Characters of a line of ${name}`}
          min={1}
          max={1000}
          placeholder="field"
          value={fit.width ?? null}
          onChange={(width) => set({ width: width ?? null })}
        />
        characters
      </label>
      {fit.into.length === 1 && (
        <label className="rule-setting inline">
          in at most
          <InputNumber size="small" aria-label={`Lines of ${name}`} min={1} max={12} placeholder="12" value={fit.lines ?? null} onChange={(lines) => set({ lines: lines ?? null })} />
          lines, where the field takes several
        </label>
      )}
      <label className="rule-setting">
        What finds no room
        <Select
          aria-label={`Where what finds no room of ${name} goes`}
          allowClear
          placeholder="is lost, and said"
          value={fit.overflow ?? null}
          options={fields.filter((one) => !fit.into.includes(one.value))}
          onChange={(overflow: string | undefined) => set({ overflow: overflow ?? null })}
        />
      </label>
    </>
  );
}
