/** What stands in a field at first. */

import { Input, InputNumber, Select } from "antd";

import type { Field } from "../../../api/schemas";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";

export function DefaultSetting({ field, set }: { field: Field; set: (settings: Partial<Field>) => void }): React.ReactNode {
  const value = field.default ?? null;
  const put = (next: Field["default"] | undefined): void => set({ default: next === "" || next === undefined ? null : next });
  const options = (field.options ?? []).map((option) => ({ value: option.value, label: option.label ?? option.value }));
  const control = (id: string): React.ReactNode => {
    switch (field.type ?? "text") {
      case "number":
        return <InputNumber id={id} className="whole-width" value={value as number | null} onChange={put} />;
      case "date":
        return <input id={id} type="date" className="date-input" value={String(value ?? "")} onChange={(event) => put(event.target.value)} />;
      case "choice":
        return <Select id={id} allowClear className="whole-width" value={value as string | null} options={options} onChange={(next) => put(next ?? null)} />;
      case "choices":
        return <Select id={id} mode="multiple" className="whole-width" value={(value ?? []) as string[]} options={options} onChange={(next) => put(next.length ? next : null)} />;
      default:
        return <Input id={id} value={String(value ?? "")} maxLength={200} onChange={(event) => put(event.target.value)} />;
    }
  };
  if (field.type === "yes_no") {
    return <SwitchSetting label="Ticked at first" value={value === true} change={(on) => put(on || null)} />;
  }
  return <Setting label="Filled with at first">{control}</Setting>;
}
