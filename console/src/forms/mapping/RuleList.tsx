/** The rules of a mapping as rows, each with what it makes of the sample. */

import { PlusOutlined } from "@ant-design/icons";
import { Button, Empty } from "antd";
import { useState } from "react";

import type { FillAnswer, FormDocument, Rule, Slot } from "../../api/schemas";
import { useComponentLabels } from "../../layouts/layouts";
import { MovableList, moved } from "../../parts/MovableList";
import type { Mapped, MappingPlace } from "./place";
import { Proposals } from "./Proposals";
import { RuleRow } from "./RuleRow";
import { fieldChoices } from "./fields";
import { ruleAt } from "./pointers";
import { newRule } from "./rules";
import { type Finding, useChangeKinds } from "./useMapping";

export function RuleList(props: {
  place: MappingPlace;
  document: FormDocument;
  slot: Slot;
  set: (settings: Partial<Slot>) => void;
  answer: FillAnswer | undefined;
  findings: Finding[];
  at: number;
  design: Mapped;
}): React.ReactNode {
  const { place, document, slot, set, answer, findings, at: slotAt, design } = props;
  const labels = useComponentLabels();
  const kinds = useChangeKinds();
  const fields = fieldChoices(document, slot, labels);
  const [proposing, setProposing] = useState(false);
  const put = (mapping: Rule[]): void => set({ mapping });
  const move = (from: number, to: number): void => put(moved(slot.mapping, from, to));
  return (
    <>
      {slot.mapping.length === 0 && <Empty description="Nothing is filled yet: add a rule, or have rules proposed." />}
      <MovableList count={slot.mapping.length} className="rule-rows" move={move}>
        {slot.mapping.map((rule, at) => (
          <RuleRow
            key={at}
            rule={rule}
            at={at}
            count={slot.mapping.length}
            fields={fields}
            labels={labels}
            kinds={kinds}
            answer={answer}
            findings={findings.filter((one) => ruleAt(one.pointer, slotAt) === at)}
            design={design}
            change={(next) => put(slot.mapping.with(at, next))}
            move={move}
            remove={() => put(slot.mapping.filter((_, other) => other !== at))}
          />
        ))}
      </MovableList>
      <div className="rule-add">
        <Button icon={<PlusOutlined aria-hidden />} onClick={() => put([...slot.mapping, newRule(fields[0]?.value ?? "")])}>
          Add a rule
        </Button>
        <Button onClick={() => setProposing(true)}>Propose rules</Button>
      </div>
      {proposing && <Proposals place={place} document={document} slot={slot} add={(rules) => put([...slot.mapping, ...rules])} close={() => setProposing(false)} />}
    </>
  );
}
