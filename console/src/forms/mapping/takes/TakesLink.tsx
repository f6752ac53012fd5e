/** A record of another form: found by what the address says, or made. */

import { CloseOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Select } from "antd";

import { fieldsOf } from "../../../../../embed/src/form/model";
import { call } from "../../../api/call";
import type { FormAnswer, Rule } from "../../../api/schemas";
import { COMPONENTS } from "../../../api/vocabulary";
import { ErrorAlert } from "../../../parts/ErrorAlert";
import { useForms } from "../../useForms";
import { hasText } from "../fields";
import type { TakesProps } from "./props";
import { valueAt } from "../../../../../embed/src/dictionary";

type LinkRule = NonNullable<Rule["link"]>;
type Inner = LinkRule["find"][number];

export function TakesLink({ rule, name, labels, change }: TakesProps): React.ReactNode {
  const forms = useForms().data?.forms ?? [];
  const link = rule.link ?? { form: "", find: [], creates: false, more: [] };
  const set = (settings: Partial<LinkRule>): void => change({ ...rule, link: { ...link, ...settings } });
  const other = useQuery({
    queryKey: ["form-published", link.form],
    queryFn: () => call<FormAnswer>(`forms/${link.form}`),
    enabled: Boolean(link.form),
    retry: false,
  });
  const fields = other.data ? fieldsOf(other.data.document).map((one) => ({ value: one.key, label: one.label || one.key })) : [];
  const rows = (which: "find" | "more", title: string): React.ReactNode => (
    <Pairs title={title} name={name} rules={link[which]} fields={fields} labels={labels} set={(next) => set({ [which]: next })} />
  );
  return (
    <>
      <Select
        aria-label={`Form of the records of ${name}`}
        className="whole-width"
        placeholder="Of which form?"
        showSearch={{ filterOption: hasText }}
        value={link.form || null}
        options={forms.map((one) => ({ value: one.key, label: one.title }))}
        onChange={(form: string) => set({ form })}
      />
      {link.form && (
        <>
          {other.isError && <ErrorAlert error={other.error} />}
          {rows("find", "Found by")}
          <Checkbox checked={link.creates} onChange={(event) => set({ creates: event.target.checked, ...(event.target.checked ? {} : { more: [] }) })}>
            Make one where there is none
          </Checkbox>
          {link.creates && rows("more", "A new one also gets")}
        </>
      )}
    </>
  );
}

function Pairs(props: {
  title: string;
  name: string;
  rules: Inner[];
  fields: { value: string; label: string }[];
  labels: Record<string, string>;
  set: (rules: Inner[]) => void;
}): React.ReactNode {
  const { title, name, rules, fields, labels, set } = props;
  return (
    <fieldset className="pairs">
      <legend className="hint">{title}</legend>
      {rules.map((rule, at) => (
        <div key={`${rule.into} ${at}`} className="pair">
          <Select
            aria-label={`${title} of ${name}: part ${at + 1}`}
            size="small"
            value={typeof rule.components?.[0] === "string" ? rule.components[0] : null}
            options={COMPONENTS.map((value) => ({ value, label: valueAt(labels, value) ?? value }))}
            onChange={(component: string) => set(rules.with(at, { ...rule, components: [component] }))}
          />
          <span aria-hidden>→</span>
          <Select
            aria-label={`${title} of ${name}: field ${at + 1}`}
            size="small"
            value={rule.into ?? null}
            options={fields}
            onChange={(into: string) => set(rules.with(at, { ...rule, into }))}
          />
          <Button type="text" size="small" aria-label={`Remove field ${at + 1} of “${title}” of ${name}`} icon={<CloseOutlined aria-hidden />} onClick={() => set(rules.filter((_, other) => other !== at))} />
        </div>
      ))}
      <Button size="small" disabled={!fields.length} onClick={() => set([...rules, { components: ["town"], into: fields[0]?.value ?? "" } as Inner])}>
        Add a field
      </Button>
    </fieldset>
  );
}
