/** What an own layout is called, and where it holds. */

import { Input, Select } from "antd";

import { useLayouts } from "../layouts";
import type { OwnDocument } from "./schemas";
import { useForms } from "./useOwn";

export type ScopePart = Pick<OwnDocument, "title" | "countries" | "forms">;

export function Scope(props: { scope: ScopePart; change: (part: Partial<ScopePart>) => void }): React.ReactNode {
  const { scope, change } = props;
  const layouts = useLayouts();
  const forms = useForms();
  return (
    <div className="scope">
      <div>
        <label htmlFor="own-title">Name</label>
        <Input
          id="own-title"
          maxLength={200}
          value={scope.title}
          placeholder="Letters to France and Belgium"
          onChange={(event) => change({ title: event.target.value })}
        />
      </div>
      <div>
        <label htmlFor="own-countries">Countries</label>
        <Select
          id="own-countries"
          mode="multiple"
          className="whole-width"
          value={scope.countries}
          placeholder="Name or code"
          showSearch={{ optionFilterProp: "label" }}
          options={(layouts.data ?? []).map((entry) => ({
            value: entry.country_code,
            label: `${entry.name} (${entry.country_code})`,
          }))}
          onChange={(countries: string[]) => change({ countries })}
        />
      </div>
      <div>
        <label htmlFor="own-forms">On which forms</label>
        <Select
          id="own-forms"
          mode="multiple"
          className="whole-width"
          value={scope.forms}
          placeholder="Everywhere"
          showSearch={{ optionFilterProp: "label" }}
          options={(forms.data ?? []).map((form) => ({ value: form.key, label: form.title }))}
          onChange={(keys: string[]) => change({ forms: keys })}
        />
      </div>
    </div>
  );
}
