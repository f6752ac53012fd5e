/** Of which countries phone numbers are, and how they are shown. */

import { Select } from "antd";

import type { Field, FormDocument } from "../../../api/schemas";
import { useLayouts } from "../../../layouts/layouts";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";

type Phone = NonNullable<Field["phone"]>;

export function PhoneSettings(props: {
  field: Field;
  document: FormDocument;
  set: (settings: Partial<Field>) => void;
}): React.ReactNode {
  const { field, document, set } = props;
  const phone: Partial<Phone> = field.phone ?? {};
  const countries = (useLayouts().data ?? []).map((layout) => ({ value: layout.country_code, label: layout.name }));
  const put = (part: Partial<Phone>): void => {
    const next = Object.entries({ ...phone, ...part }).filter(([, value]) => value && !(Array.isArray(value) && !value.length));
    set({ phone: next.length ? (Object.fromEntries(next) as unknown as Phone) : null });
  };
  const list = (name: "only" | "without" | "first", label: string, hint?: string): React.ReactNode => (
    <Setting label={label} hint={hint}>
      {(id) => (
        <Select id={id} mode="multiple" className="whole-width" showSearch={{ optionFilterProp: "label" }} maxTagCount={4} value={phone[name] ?? []} options={countries} onChange={(codes) => put({ [name]: codes })} />
      )}
    </Setting>
  );
  const chosen = phone.country ? phone.country : phone.slot ? `slot ${phone.slot}` : "";
  return (
    <>
      <Setting label="Dial code at first">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            showSearch={{ optionFilterProp: "label" }}
            value={chosen}
            options={[
              { value: "", label: "of the first address, else the browser's" },
              ...document.slots.map((slot) => ({ value: `slot ${slot.key}`, label: `of “${slot.label}”` })),
              ...countries,
            ]}
            onChange={(value) =>
              put(value.startsWith("slot ") ? { slot: value.slice("slot ".length), country: null } : { country: value || null, slot: null })
            }
          />
        )}
      </Setting>
      {list("only", "Only these countries", "Empty: all.")}
      {list("without", "All but these countries")}
      {list("first", "First in the list")}
      <SwitchSetting label="Shown as inside its country" value={Boolean(phone.national)} change={(national) => put({ national })} hint="Kept internationally all the same." />
    </>
  );
}
