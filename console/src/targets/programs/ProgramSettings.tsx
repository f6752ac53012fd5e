/** What a program target is called, what is captured there, and how everything is worded. */

import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Checkbox, Form, Input, Select } from "antd";

import { useLayouts } from "../../layouts/layouts";
import { Panel } from "../../parts/Panel";
import type { ProgramAddress, ProgramDocument, ProgramProps, Wording } from "./usePrograms";
import { CountryWording } from "./WordingFields";

export function ProgramSettings({ document, edit }: ProgramProps): React.ReactNode {
  const layouts = useLayouts();
  const countries = (layouts.data ?? []).map((entry) => ({ value: entry.country_code, label: `${entry.name} (${entry.country_code})` }));
  const wording: Wording = document.wording ?? { capitals: false, country_as: null, home_country: null };
  const word = (changed: Partial<Wording>): void => edit({ ...document, wording: { ...wording, ...changed } });
  const set = (at: number, changed: Partial<ProgramAddress>): void => edit({ ...document, addresses: document.addresses.map((one, place) => (place === at ? { ...one, ...changed } : one)) });
  const search = { optionFilterProp: "label" };
  return (
    <Form layout="vertical" requiredMark={false} className="new-target">
      <Form.Item label="What the screen is called here" htmlFor="program-title">
        <Input id="program-title" value={document.title} maxLength={200} onChange={(event) => edit({ ...document, title: event.target.value })} />
      </Form.Item>
      <Panel title="How everything is written">
        <Form.Item>
          <Checkbox checked={wording.capitals} onChange={(event) => word({ capitals: event.target.checked })}>
            In capitals
          </Checkbox>
        </Form.Item>
        <CountryWording wording={wording} change={word} unsaid="as each part says" />
      </Panel>
      {document.addresses.map((address, at) => (
        <Panel
          key={address.key}
          title={`Address “${address.label}”`}
          apart
          extra={document.addresses.length > 1 && <Button aria-label={`Take out ${address.label}`} icon={<DeleteOutlined aria-hidden />} onClick={() => edit({ ...document, addresses: document.addresses.filter((_, place) => place !== at) })} />}
        >
          <Form.Item label="Name for people" htmlFor={`${address.key}-label`}>
            <Input id={`${address.key}-label`} value={address.label} maxLength={200} onChange={(event) => set(at, { label: event.target.value })} />
          </Form.Item>
          <Form.Item label="Countries" htmlFor={`${address.key}-countries`} extra="None: all that there are.">
            <Select id={`${address.key}-countries`} mode="multiple" value={address.countries ?? []} options={countries} showSearch={search} onChange={(codes: string[]) => set(at, { countries: codes.length ? codes : null })} />
          </Form.Item>
          <Form.Item label="Word for practice addresses" htmlFor={`${address.key}-practice`} extra="Typed first, it finds made-up addresses that count for nothing.">
            <Input id={`${address.key}-practice`} value={address.practice_word ?? ""} maxLength={30} onChange={(event) => set(at, { practice_word: event.target.value || null })} />
          </Form.Item>
        </Panel>
      ))}
      <p>
        <Button icon={<PlusOutlined aria-hidden />} onClick={() => edit({ ...document, addresses: [...document.addresses, copied(document)] })}>
          Add another address
        </Button>{" "}
        <span className="hint">Two addresses on one screen are offered by name in the finder.</span>
      </p>
    </Form>
  );
}

/** Another address, with the mapping and plan of the last one to begin with. */
function copied(document: ProgramDocument): ProgramAddress {
  const last = document.addresses.at(-1);
  let number = document.addresses.length + 1;
  while (document.addresses.some((one) => one.key === `address-${number}`)) number += 1;
  return { ...(last as ProgramAddress), key: `address-${number}`, label: `Address ${number}`, examples: [] };
}
