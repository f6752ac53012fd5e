/** A key that is to be made: for a program or for pages, with no more than it needs. */

import { Checkbox, Form, Input, Modal, Radio, Select } from "antd";
import { useState } from "react";

import type * as api from "../../../embed/src/api";
import { ServiceError } from "../api/call";
import { useForms } from "../forms/useForms";
import { ErrorAlert } from "../parts/ErrorAlert";
import { useTargets } from "../targets/useTargets";
import { type NewSecret, makeKey, useKeyChange } from "./useKeys";

const DAY_MS = 86_400_000;
const LASTS = [
  { value: 0, label: "until it is ended" },
  { value: 30, label: "30 days" },
  { value: 90, label: "90 days" },
  { value: 365, label: "a year" },
];

export function NewKeyForm(props: { scopes: api.ScopeSchema[]; made: (made: NewSecret) => void; close: () => void }): React.ReactNode {
  const { scopes, made, close } = props;
  const forms = useForms();
  const targets = useTargets();
  const making = useKeyChange(makeKey);
  const [kind, setKind] = useState<"server" | "browser">("browser");
  const [name, setName] = useState("");
  const [given, setGiven] = useState<string[]>([]);
  const [origins, setOrigins] = useState<string[]>([]);
  const [ofForms, setOfForms] = useState<string[]>([]);
  const [ofTargets, setOfTargets] = useState<string[]>([]);
  const [days, setDays] = useState(0);
  const wrong = placed(making.error);
  const make = (): void =>
    making.mutate(
      {
        kind,
        name,
        scopes: kind === "server" ? given : [],
        origins: kind === "browser" ? origins : [],
        forms: kind === "browser" ? ofForms : [],
        targets: kind === "browser" ? ofTargets : [],
        expires_at: days ? new Date(Date.now() + days * DAY_MS).toISOString() : null,
      },
      { onSuccess: made },
    );
  const problem = (place: string): { validateStatus?: "error"; help?: string } => {
    const said = Object.entries(wrong).find(([pointer]) => pointer === place || pointer.startsWith(`${place}/`))?.[1];
    return said ? { validateStatus: "error", help: said } : {};
  };
  return (
    <Modal open title="New key" okText="Make it" onOk={make} onCancel={close} confirmLoading={making.isPending}>
      <Form layout="vertical">
        <Form.Item label="Who presents it">
          <Radio.Group value={kind} onChange={(event) => setKind(event.target.value as typeof kind)}>
            <Radio value="browser">Pages: everybody can read it</Radio>
            <Radio value="server">A program: it stays secret</Radio>
          </Radio.Group>
        </Form.Item>
        <Form.Item label="What it is for" htmlFor="key-name" {...problem("/name")}>
          <Input id="key-name" value={name} maxLength={120} onChange={(event) => setName(event.target.value)} />
        </Form.Item>
        {kind === "server" ? (
          <Form.Item label="What it may do" {...problem("/scopes")}>
            <Checkbox.Group className="stacked" value={given} onChange={setGiven} options={scopes.map((one) => ({ value: one.name, label: `${one.name}: ${one.says}` }))} />
          </Form.Item>
        ) : (
          <>
            <Form.Item label="Origins of its pages" htmlFor="key-origins" {...problem("/origins")}>
              <Select id="key-origins" mode="tags" open={false} tokenSeparators={[",", " "]} value={origins} onChange={setOrigins} placeholder="https://shop.example" suffixIcon={null} />
            </Form.Item>
            <Form.Item label="Forms that it may be used for" htmlFor="key-forms" {...problem("/forms")}>
              <Select
                id="key-forms"
                mode="multiple"
                optionFilterProp="label"
                value={ofForms}
                onChange={setOfForms}
                options={(forms.data?.forms ?? []).map((one) => ({ value: one.key, label: one.title }))}
              />
            </Form.Item>
            {targets.data && targets.data.targets.length > 0 && (
              <Form.Item label="Targets that it may be used for: pages that are not ours" htmlFor="key-targets" {...problem("/targets")}>
                <Select
                  id="key-targets"
                  mode="multiple"
                  optionFilterProp="label"
                  value={ofTargets}
                  onChange={setOfTargets}
                  options={targets.data.targets.map((one) => ({ value: one.key, label: one.title }))}
                />
              </Form.Item>
            )}
          </>
        )}
        <Form.Item label="It can be used" htmlFor="key-days">
          <Select id="key-days" value={days} options={LASTS} onChange={setDays} />
        </Form.Item>
      </Form>
      {making.isError && Object.keys(wrong).length === 0 && <ErrorAlert error={making.error} />}
      {forms.isError && <ErrorAlert error={forms.error} />}
      {targets.isError && <ErrorAlert error={targets.error} />}
    </Modal>
  );
}

/** What is wrong, by the place that it is said of. */
function placed(error: unknown): Record<string, string> {
  const places = error instanceof ServiceError ? error.places : [];
  return Object.fromEntries(places.map((one) => [one.pointer, one.detail]));
}
