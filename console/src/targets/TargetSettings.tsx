/** Where a target's pages are, what is captured there, and where the finder sits. */

import { Form, Input, Select } from "antd";

import { useLayouts } from "../layouts/layouts";
import { Panel } from "../parts/Panel";
import type { PageAddress, TargetDocument } from "./useTargets";

type Finder = NonNullable<PageAddress["finder"]>;

const SITS: { value: Finder["sits"]; label: string }[] = [
  { value: "before", label: "before" },
  { value: "after", label: "after" },
  { value: "instead", label: "instead of it, until it is filled" },
];

export function TargetSettings({ document, change }: { document: TargetDocument; change: (document: TargetDocument) => void }): React.ReactNode {
  const layouts = useLayouts();
  const countries = (layouts.data ?? []).map((entry) => ({ value: entry.country_code, label: `${entry.name} (${entry.country_code})` }));
  const inputs = (document.fields ?? []).map((field) => ({ value: field.key, label: field.label ?? field.key }));
  const sit = (at: number, changed: Partial<Finder>): void => {
    const finder: Finder = { sits: "before", at: null, label: null, ...document.addresses?.[at]?.finder };
    set(at, { finder: { ...finder, ...changed } });
  };
  const set = (at: number, changed: Partial<PageAddress>): void =>
    change({ ...document, addresses: (document.addresses ?? []).map((one, place) => (place === at ? { ...one, ...changed } : one)) });
  return (
    <Form layout="vertical" requiredMark={false} className="new-target">
      <Form.Item label="What the page is called here" htmlFor="target-title">
        <Input id="target-title" value={document.title} maxLength={200} onChange={(event) => change({ ...document, title: event.target.value })} />
      </Form.Item>
      <Form.Item label="Web origins of its pages" htmlFor="target-origins" extra="Scheme, host, and a port that is not the usual one.">
        <Tags id="target-origins" value={document.origins ?? []} placeholder="https://shop.example" change={(origins) => change({ ...document, origins })} />
      </Form.Item>
      <Form.Item label="Paths of its pages" htmlFor="target-paths" extra="With * for any characters; none: every page of these origins.">
        <Tags id="target-paths" value={document.paths ?? []} placeholder="/checkout*" change={(paths) => change({ ...document, paths })} />
      </Form.Item>
      {(document.addresses ?? []).map((address, at) => (
        <Panel key={address.key} title={`Address “${address.label}”`} apart>
          <Form.Item label="Name for people" htmlFor={`${address.key}-label`}>
            <Input id={`${address.key}-label`} value={address.label} maxLength={200} onChange={(event) => set(at, { label: event.target.value })} />
          </Form.Item>
          <Form.Item label="Countries" htmlFor={`${address.key}-countries`} extra="None: all that there are.">
            <Select
              id={`${address.key}-countries`}
              mode="multiple"
              value={address.countries ?? []}
              options={countries}
              showSearch={{ optionFilterProp: "label" }}
              onChange={(codes: string[]) => set(at, { countries: codes.length ? codes : null })}
            />
          </Form.Item>
          <Form.Item label="What the finder says" htmlFor={`${address.key}-finder`}>
            <Input
              id={`${address.key}-finder`}
              placeholder="Find your address"
              value={address.finder?.label ?? ""}
              maxLength={200}
              onChange={(event) => sit(at, { label: event.target.value || null })}
            />
          </Form.Item>
          <Form.Item label="Word for practice addresses" htmlFor={`${address.key}-practice`} extra="Typed first, it finds made-up addresses that count for nothing.">
            <Input id={`${address.key}-practice`} value={address.practice_word ?? ""} maxLength={30} onChange={(event) => set(at, { practice_word: event.target.value || null })} />
          </Form.Item>
          <Form.Item label="Where the finder sits">
            <div className="page-row">
              <Select aria-label="Where the finder sits" value={address.finder?.sits ?? "before"} options={SITS} popupMatchSelectWidth={false} onChange={(sits) => sit(at, { sits })} />
              <Select aria-label="Input that the finder sits at" value={address.finder?.at ?? null} options={inputs} popupMatchSelectWidth={false} onChange={(input: string | null) => sit(at, { at: input })} />
            </div>
          </Form.Item>
        </Panel>
      ))}
    </Form>
  );
}

function Tags(props: { id: string; value: string[]; placeholder: string; change: (value: string[]) => void }): React.ReactNode {
  return <Select id={props.id} mode="tags" open={false} tokenSeparators={[",", " "]} value={props.value} onChange={props.change} placeholder={props.placeholder} suffixIcon={null} />;
}
