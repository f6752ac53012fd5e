/** Rules that may be meant, each with its reason; and those of another address. */

import { useMutation, useQuery } from "@tanstack/react-query";
import { Checkbox, Modal, Select, Spin } from "antd";
import { useState } from "react";

import type * as api from "../../../../embed/src/api";
import { ruleFills } from "../../../../embed/src/form/rule-fills";
import { call } from "../../api/call";
import type { Draft, FormDocument, Rule, Slot } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { useComponentLabels } from "../../layouts/layouts";
import { useForms } from "../useForms";
import { fieldChoices, hasText } from "./fields";
import type { MappingPlace } from "./place";
import { SOURCE_KINDS, kindOf, partName } from "./rules";

export function Proposals(props: {
  place: MappingPlace;
  document: FormDocument;
  slot: Slot;
  add: (rules: Rule[]) => void;
  close: () => void;
}): React.ReactNode {
  const { place, document, slot, add, close } = props;
  const labels = useComponentLabels();
  const fields = fieldChoices(document, slot, labels);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const answer = useQuery({
    queryKey: ["mapping-proposals", place.of(slot.key), JSON.stringify(document)],
    queryFn: () => call<api.ProposedRules>(`${place.of(slot.key)}/proposals`, { method: "POST", body: { document: place.sent(document) } }),
    gcTime: 0,
  });
  const proposals = answer.data?.proposals ?? [];
  const taken = proposals.filter((_, at) => !left.has(at)).map((one) => trimmed(one.rule as Rule));
  const [empty, setEmpty] = useState("");
  const copy = (rules: Rule[], from: string): void => {
    if (!rules.length) {
      setEmpty(`Nothing of “${from}” goes into a part that this address has, too.`);
      return;
    }
    add(rules);
    close();
  };
  const others = document.slots.filter((one) => one.key !== slot.key && one.mapping.length);
  const named = (rule: Rule): string => {
    const kind = kindOf(rule);
    const parts = rule.components?.map((part) => partName(part, labels)).join(" ");
    const into = ruleFills(rule).map((key) => fields.find((one) => one.value === key)?.label ?? key);
    return `${parts ?? SOURCE_KINDS[kind].title} → ${into.join(", ")}`;
  };
  return (
    <Modal
      title="Propose rules"
      open
      onCancel={close}
      okText={taken.length === 1 ? "Take 1 rule" : `Take ${taken.length} rules`}
      okButtonProps={{ disabled: !taken.length }}
      onOk={() => {
        add(taken);
        close();
      }}
    >
      {answer.isError && <ErrorAlert error={answer.error} />}
      {answer.isPending && <Spin description="Looking at the fields …" />}
      {answer.data && !proposals.length && <p>Every field that looks like a part of an address is written by a rule already.</p>}
      <ul className="plain proposals">
        {proposals.map((one, at) => (
          <li key={at}>
            <Checkbox
              checked={!left.has(at)}
              onChange={(event) => {
                const next = new Set(left);
                if (event.target.checked) next.delete(at);
                else next.add(at);
                setLeft(next);
              }}
            >
              <b>{named(one.rule as Rule)}</b>
              <span className="hint block">{one.because}</span>
            </Checkbox>
          </li>
        ))}
      </ul>
      {place.isForm && <OtherForm own={document.key} slot={slot} copy={copy} />}
      {others.length > 0 && (
        <label className="rule-setting">
          Or as in another address here
          <Select
            aria-label="Copy the rules of another address"
            placeholder="Which address?"
            options={others.map((one) => ({ value: one.key, label: one.label }))}
            onChange={(key: string) => {
              const other = others.find((one) => one.key === key);
              if (other) copy(copied(other, slot), other.label);
            }}
          />
        </label>
      )}
      {empty && <p role="status" className="hint">{empty}</p>}
    </Modal>
  );
}

/** The rules of an address of another form, into the parts that stand for the same. */
function OtherForm({ own, slot, copy }: { own: string; slot: Slot; copy: (rules: Rule[], from: string) => void }): React.ReactNode {
  const all = useForms();
  const forms = all.data?.forms.filter((one) => one.key !== own) ?? [];
  const chosen = useMutation({
    mutationFn: (key: string) => call<Draft>(`forms/${key}/draft`),
    onSuccess: ({ document }) => copy(document.slots.flatMap((other) => copied(other, slot)).filter(isFirst), document.title),
  });
  if (all.isError) return <ErrorAlert error={all.error} />;
  if (!forms.length) return null;
  return (
    <label className="rule-setting">
      Or as in another form
      <Select
        aria-label="Copy the rules of another form"
        placeholder="Which form?"
        showSearch={{ filterOption: hasText }}
        loading={chosen.isPending}
        options={forms.map((one) => ({ value: one.key, label: one.title }))}
        onChange={(key: string) => chosen.mutate(key)}
      />
      {chosen.isError && <ErrorAlert error={chosen.error} />}
    </label>
  );
}

/** Of several rules into one field, the first. */
function isFirst(rule: Rule, at: number, rules: Rule[]): boolean {
  return rules.findIndex((one) => one.into === rule.into) === at;
}

/** A rule without what says nothing. */
function trimmed(rule: Rule): Rule {
  const kept = Object.entries(rule).filter(([name, value]) => name === "changes" || (value !== null && value !== false && value !== undefined));
  return Object.fromEntries(kept) as Rule;
}

/** Another address's rules, into the parts of this one that stand for the same components. */
function copied(other: Slot, slot: Slot): Rule[] {
  return other.mapping.flatMap((rule) => {
    const part = other.parts.find((one) => one.key === rule.into);
    const mine = part ? slot.parts.find((one) => one.component === part.component) : undefined;
    return mine ? [{ ...rule, into: mine.key }] : [];
  });
}
