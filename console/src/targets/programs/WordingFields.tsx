/** How programs are written into: in capitals, the country's name, the country that is left out. */

import { Form, Select } from "antd";

import { useLayouts } from "../../layouts/layouts";
import type { PartOfWording, Wording } from "./usePrograms";

const COUNTRY_AS: { value: NonNullable<Wording["country_as"]>; label: string }[] = [
  { value: "name", label: "its name" },
  { value: "local", label: "its name in its own language" },
  { value: "alpha_2", label: "two letters (GB)" },
  { value: "alpha_3", label: "three letters (GBR)" },
  { value: "numeric", label: "three digits (826)" },
  { value: "nation", label: "the nation (Wales), where there is one" },
];

interface Fields {
  wording: Pick<PartOfWording, "country_as" | "home_country">;
  change: (changed: Partial<Pick<Wording, "country_as" | "home_country">>) => void;
  /** What stands where nothing is said. */
  unsaid: string;
}

export function CountryWording({ wording, change, unsaid }: Fields): React.ReactNode {
  const layouts = useLayouts();
  const countries = (layouts.data ?? []).map((entry) => ({ value: entry.country_code, label: `${entry.name} (${entry.country_code})` }));
  return (
    <>
      <Form.Item label="The country as" htmlFor="country-as" extra="A rule that says it by itself is left as it is.">
        <Select id="country-as" allowClear placeholder={unsaid} value={wording.country_as} options={COUNTRY_AS} onChange={(value) => change({ country_as: value ?? null })} />
      </Form.Item>
      <Form.Item label="Country that is not written" htmlFor="home-country" extra="Your own: mail within it needs no country.">
        <Select
          id="home-country"
          allowClear
          placeholder={unsaid}
          showSearch={{ optionFilterProp: "label" }}
          value={wording.home_country}
          options={countries}
          onChange={(value) => change({ home_country: value ?? null })}
        />
      </Form.Item>
    </>
  );
}
