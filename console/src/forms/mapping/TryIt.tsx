/** An address filled step by step: a picture of what went where, a table of it, and examples. */

import { App, Button, Input, Select, Table } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";
import type { FillAnswer, Slot } from "../../api/schemas";
import { useComponentLabels } from "../../layouts/layouts";
import type { Design } from "../design/useDesign";
import { TraceDrawing } from "./TraceDrawing";
import { fieldChoices } from "./fields";
import { type Sample, useSettled, useTried } from "./useMapping";

export function TryIt(props: {
  form: string;
  design: Design;
  slot: Slot;
  bar: React.ReactNode;
  sample: Sample | null;
  answer: FillAnswer | undefined;
  set: (settings: Partial<Slot>) => void;
}): React.ReactNode {
  const { form, design, slot, bar, sample, set } = props;
  const labels = useComponentLabels();
  const [found, setFound] = useState<{ id: string; label: string } | null>(null);
  const own = useTried(form, slot.key, design.document, found?.id);
  const answer = found ? own.data : props.answer;
  const shown = found ?? sample;
  const before = useBefore(shown?.id, answer);
  const fields = fieldChoices(design.document, slot, labels);
  const called = (key: string): string => fields.find((one) => one.value === key)?.label ?? key;
  return (
    <>
      {bar}
      <FindAny form={form} choose={setFound} found={found} />
      {shown && <p className="first" role="status">Filled from: <bdi>{shown.label}</bdi></p>}
      {answer && (
        <>
          {answer.warnings.length > 0 && (
            <ul className="warnings">
              {answer.warnings.map((warning, at) => (
                <li key={at}>{warning}</li>
              ))}
            </ul>
          )}
          <TraceDrawing answer={answer} called={called} labels={labels} />
          <Table
            size="small"
            rowKey="key"
            pagination={false}
            scroll={{ x: true }}
            dataSource={Object.entries(answer.values).map(([key, text]) => ({ key, text: answer.labels[key] || text, from: sourcesOf(answer, key) }))}
            columns={[
              { title: "Field", dataIndex: "key", render: (key: string) => called(key) },
              { title: "Before", dataIndex: "key", key: "before", render: (key: string) => <bdi className="hint">{before[key]}</bdi> },
              { title: "From", dataIndex: "from", render: (names: string[]) => names.map((one) => labels[one] ?? one).join(", ") },
              { title: "Stands there", dataIndex: "text", render: (text: string) => (text ? <bdi>{text}</bdi> : <span className="hint">cleared</span>) },
            ]}
          />
          {shown && <KeepExample key={shown.id} label={shown.label} address={shown.id} answer={answer} slot={slot} set={set} />}
        </>
      )}
    </>
  );
}

/** What stood in the fields before: what the address that was shown before came to. */
function useBefore(id: string | undefined, answer: FillAnswer | undefined): Record<string, string> {
  const [kept, setKept] = useState<{ id: string | undefined; now: Record<string, string>; before: Record<string, string> }>({ id, now: {}, before: {} });
  useEffect(() => {
    if (!answer) return;
    const now = Object.fromEntries(Object.entries(answer.values).map(([key, text]) => [key, answer.labels[key] || text]));
    setKept((old) => (old.id === id ? { ...old, now } : { id, now, before: old.now }));
  }, [id, answer]);
  return kept.before;
}

function sourcesOf(answer: FillAnswer, key: string): string[] {
  return [...new Set(answer.trace.filter((step) => step.field === key && ["wrote", "appended", "replaced", "linked", "made"].includes(step.kind)).flatMap((step) => step.components))];
}

/** Any address of the reference data, by what is typed. */
function FindAny(props: { form: string; found: { id: string } | null; choose: (found: { id: string; label: string } | null) => void }): React.ReactNode {
  const { choose, found } = props;
  const [typed, setTyped] = useState("");
  const text = useSettled(typed.trim());
  const answer = useQuery({
    queryKey: ["mapping-find", text],
    queryFn: () => call<api.Suggestions>(`suggest?kinds=address&limit=8&q=${encodeURIComponent(text)}`),
    enabled: text.length > 1,
  });
  return (
    <label className="rule-setting find-any">
      Or any other address
      <Select
        allowClear
        aria-label="Any other address"
        placeholder="Type some letters of it"
        showSearch={{ filterOption: false, onSearch: setTyped }}
        value={found?.id ?? null}
        options={(answer.data?.suggestions ?? []).map((one) => ({ value: one.id, label: one.label }))}
        notFoundContent={text.length > 1 && answer.isFetched ? "Nothing is found." : null}
        onChange={(id: string | undefined) => choose(id ? { id, label: answer.data?.suggestions.find((one) => one.id === id)?.label ?? id } : null)}
      />
    </label>
  );
}

/** Keeps what the mapping makes of an address as what it must make of it. */
function KeepExample(props: { label: string; address: string; answer: FillAnswer; slot: Slot; set: (settings: Partial<Slot>) => void }): React.ReactNode {
  const { label, address, answer, slot, set } = props;
  const { message } = App.useApp();
  const [name, setName] = useState(label.slice(0, 60));
  const keep = async (): Promise<void> => {
    const whole = await call<api.AddressAnswer>(`addresses/${encodeURIComponent(address)}`);
    const { latitude, longitude, use, languages } = whole.facts;
    const facts = { latitude, longitude, use: use ?? "", languages };
    const example = { name: name.trim() || label, components: whole.components, facts, address_id: address, values: answer.values };
    set({ examples: [...(slot.examples ?? []).filter((one) => one.name !== example.name), example] });
    void message.success("Kept as an example: every publish runs it.");
  };
  return (
    <div className="keep-example">
      <Input aria-label="Name of the example" value={name} maxLength={200} onChange={(event) => setName(event.target.value)} />
      <Button onClick={() => void keep()}>Keep as an example</Button>
    </div>
  );
}
