/** An address filled step by step: a picture of what went where, a table of it, and examples. */

import { App, Button, Input, Select, Table } from "antd";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";
import type { FillAnswer, FormDocument, Slot } from "../../api/schemas";
import { useComponentLabels } from "../../layouts/layouts";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { TraceDrawing } from "./TraceDrawing";
import { fieldChoices } from "./fields";
import { WRITES } from "./rules";
import { type Sample, useSettled } from "./useMapping";
import { valueAt } from "../../../../embed/src/dictionary";

export function TryIt(props: {
  document: FormDocument;
  slot: Slot;
  bar: React.ReactNode;
  sample: Sample | null;
  choose: (sample: Sample | null) => void;
  answer: FillAnswer | undefined;
  set: (settings: Partial<Slot>) => void;
}): React.ReactNode {
  const { document, slot, bar, sample, choose, answer, set } = props;
  const labels = useComponentLabels();
  const before = useBefore(sample?.id, answer);
  const fields = fieldChoices(document, slot, labels);
  const called = (key: string): string => fields.find((one) => one.value === key)?.label ?? key;
  return (
    <>
      {bar}
      <FindAny choose={choose} sample={sample} />
      {sample && <p className="first" role="status">Filled from: <bdi>{sample.label}</bdi></p>}
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
            dataSource={Object.entries(answer.values).map(([key, text]) => ({ key, text: valueAt(answer.labels, key) || text, from: sourcesOf(answer, key) }))}
            columns={[
              { title: "Field", dataIndex: "key", render: (key: string) => called(key) },
              { title: "Before", dataIndex: "key", key: "before", render: (key: string) => <bdi className="hint">{valueAt(before, key)}</bdi> },
              { title: "From", dataIndex: "from", render: (names: string[]) => names.map((one) => valueAt(labels, one) ?? one).join(", ") },
              { title: "Stands there", dataIndex: "text", render: (text: string) => (text ? <bdi>{text}</bdi> : <span className="hint">cleared</span>) },
            ]}
          />
          {sample && <KeepExample key={sample.id} label={sample.label} address={sample.id} answer={answer} slot={slot} set={set} />}
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
    const now = Object.fromEntries(Object.entries(answer.values).map(([key, text]) => [key, valueAt(answer.labels, key) || text]));
    setKept((old) => (old.id === id ? { ...old, now } : { id, now, before: old.now }));
  }, [id, answer]);
  return kept.before;
}

const LINKS = new Set(["linked", "made"]);

function sourcesOf(answer: FillAnswer, key: string): string[] {
  return [...new Set(answer.trace.filter((step) => step.field === key && (WRITES.has(step.kind) || LINKS.has(step.kind))).flatMap((step) => step.components))];
}

/** Any address of the reference data, by what is typed. */
function FindAny({ sample, choose }: { sample: Sample | null; choose: (sample: Sample | null) => void }): React.ReactNode {
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
        value={sample?.which === "other" ? { value: sample.id, label: sample.label } : null}
        labelInValue
        options={(answer.data?.suggestions ?? []).map((one) => ({ value: one.id, label: one.label }))}
        notFoundContent={text.length > 1 && answer.isFetched ? "Nothing is found." : null}
        onChange={(picked: { value: string; label: string } | null | undefined) => {
          const one = answer.data?.suggestions.find((other) => other.id === picked?.value);
          choose(one ? { which: "other", country_code: one.country_code, id: one.id, label: one.label } : null);
        }}
      />
      {answer.isError && <ErrorAlert error={answer.error} />}
    </label>
  );
}

/** Keeps what the mapping makes of an address as what it must make of it. */
function KeepExample(props: { label: string; address: string; answer: FillAnswer; slot: Slot; set: (settings: Partial<Slot>) => void }): React.ReactNode {
  const { label, address, answer, slot, set } = props;
  const { message } = App.useApp();
  const [name, setName] = useState(label.slice(0, 60));
  // Which records there are is no matter of the mapping: links are left out.
  const links = new Set(slot.mapping.filter((rule) => rule.link).map((rule) => rule.into));
  const values = Object.fromEntries(Object.entries(answer.values).filter(([key]) => !links.has(key)));
  const keep = useMutation({
    mutationFn: () => call<api.AddressAnswer>(`addresses/${encodeURIComponent(address)}`),
    onSuccess: (whole) => {
      const { latitude, longitude, use, languages } = whole.facts;
      const facts = { latitude, longitude, use: use ?? "", languages };
      const example = { name: name.trim() || label, components: whole.components, facts, address_id: address, values };
      set({ examples: [...(slot.examples ?? []).filter((one) => one.name !== example.name), example] });
      void message.success("Kept as an example: every publish runs it.");
    },
  });
  return (
    <div className="keep-example">
      <Input aria-label="Name of the example" value={name} maxLength={200} onChange={(event) => setName(event.target.value)} />
      <Button loading={keep.isPending} onClick={() => keep.mutate()}>
        Keep as an example
      </Button>
      {keep.isError && <ErrorAlert error={keep.error} />}
    </div>
  );
}
