/** The countries of an address, and the one that is chosen at first. */

import { Button, Select, Space } from "antd";

import type { Slot } from "../../../api/schemas";
import { useLayouts } from "../../../layouts/layouts";
import { Setting } from "./Setting";

export function CountrySettings({ slot, set }: { slot: Slot; set: (settings: Partial<Slot>) => void }): React.ReactNode {
  const all = useLayouts().data ?? [];
  const names = new Map(all.map((layout) => [layout.country_code, layout.name]));
  const searched = all.filter((layout) => layout.has_addresses).map((layout) => layout.country_code);
  // None named: it is there for all.
  const chosen = slot.countries ?? [];
  const offered = chosen.length ? chosen : all.map((layout) => layout.country_code);
  const choices = all.map((layout) => ({ value: layout.country_code, label: layout.name }));
  const put = (countries: string[]): void => {
    const isLost = slot.country && countries.length && !countries.includes(slot.country);
    set({ countries, ...(isLost ? { country: null } : {}) });
  };
  return (
    <>
      <Setting label="Countries" hint={chosen.length ? `${chosen.length} can be chosen` : "All of the world can be chosen."}>
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            maxTagCount={6}
            showSearch={{ optionFilterProp: "label" }}
            placeholder="all of the world"
            value={chosen}
            options={choices}
            onChange={put}
          />
        )}
      </Setting>
      <Space wrap className="country-sets">
        <Button size="small" disabled={!searched.length} onClick={() => put(searched)}>
          All that can be searched ({searched.length})
        </Button>
        <Button size="small" disabled={!all.length} onClick={() => put([])}>
          All of the world
        </Button>
      </Space>
      {offered.length > 1 && (
        <Setting label="Chosen at first">
          {(id) => (
            <Select
              id={id}
              allowClear
              className="whole-width"
              placeholder="as the person's browser says"
              value={slot.country ?? null}
              options={offered.map((code) => ({ value: code, label: names.get(code) ?? code }))}
              onChange={(country) => set({ country: country ?? null })}
            />
          )}
        </Setting>
      )}
    </>
  );
}
