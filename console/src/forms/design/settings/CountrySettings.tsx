/** The countries of an address, and the one that is chosen at first. */

import { Button, Select, Space } from "antd";

import type { Slot } from "../../../api/schemas";
import { useLayouts } from "../../../layouts/layouts";
import { Setting } from "./Setting";

export function CountrySettings({ slot, set }: { slot: Slot; set: (settings: Partial<Slot>) => void }): React.ReactNode {
  const all = useLayouts().data ?? [];
  const names = new Map(all.map((layout) => [layout.country_code, layout.name]));
  const searched = all.filter((layout) => layout.has_addresses).map((layout) => layout.country_code);
  const choices = all.map((layout) => ({ value: layout.country_code, label: layout.name }));
  const put = (countries: string[]): void => {
    if (countries.length) set({ countries, ...(slot.country && !countries.includes(slot.country) ? { country: null } : {}) });
  };
  return (
    <>
      <Setting label="Countries" hint={`${slot.countries.length} can be chosen`}>
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            maxTagCount={6}
            showSearch={{ optionFilterProp: "label" }}
            value={slot.countries}
            options={choices}
            onChange={put}
          />
        )}
      </Setting>
      <Space wrap className="country-sets">
        <Button size="small" disabled={!searched.length} onClick={() => put(searched)}>
          All that can be searched ({searched.length})
        </Button>
        <Button size="small" disabled={!all.length} onClick={() => put(all.map((layout) => layout.country_code))}>
          All of the world
        </Button>
      </Space>
      {slot.countries.length > 1 && (
        <Setting label="Chosen at first">
          {(id) => (
            <Select
              id={id}
              allowClear
              className="whole-width"
              placeholder="as the person's browser says"
              value={slot.country ?? null}
              options={slot.countries.map((code) => ({ value: code, label: names.get(code) ?? code }))}
              onChange={(country) => set({ country: country ?? null })}
            />
          )}
        </Setting>
      )}
    </>
  );
}
