/** The rules of a mapping as rows, each with what it makes of the sample. */

import { PlusOutlined } from "@ant-design/icons";
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { Button, Empty } from "antd";
import { useState } from "react";

import type { FillAnswer, FormDocument, Rule, Slot } from "../../api/schemas";
import { useComponentLabels } from "../../layouts/layouts";
import type { Design } from "../design/useDesign";
import { Proposals } from "./Proposals";
import { RuleRow } from "./RuleRow";
import { fieldChoices } from "./fields";
import { ruleAt } from "./pointers";
import { newRule } from "./rules";
import { type Finding, useChangeKinds } from "./useMapping";

export function RuleList(props: {
  form: string;
  document: FormDocument;
  slot: Slot;
  set: (settings: Partial<Slot>) => void;
  answer: FillAnswer | undefined;
  findings: Finding[];
  at: number;
  design: Design;
}): React.ReactNode {
  const { form, document, slot, set, answer, findings, at: slotAt, design } = props;
  const labels = useComponentLabels();
  const kinds = useChangeKinds();
  const fields = fieldChoices(document, slot, labels);
  const [proposing, setProposing] = useState(false);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const put = (mapping: Rule[]): void => set({ mapping });
  const move = (from: number, to: number): void => {
    const rule = slot.mapping[from];
    if (!rule || to < 0 || to >= slot.mapping.length) return;
    const without = slot.mapping.filter((_, at) => at !== from);
    put([...without.slice(0, to), rule, ...without.slice(to)]);
  };
  return (
    <>
      {slot.mapping.length === 0 && <Empty description="Nothing is filled yet: add a rule, or have rules proposed." />}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => over && move(Number(active.id) - 1, Number(over.id) - 1)}
      >
        <SortableContext items={slot.mapping.map((_, at) => at + 1)} strategy={verticalListSortingStrategy}>
          <ol className="rule-rows">
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
          </ol>
        </SortableContext>
      </DndContext>
      <div className="rule-add">
        <Button icon={<PlusOutlined aria-hidden />} onClick={() => put([...slot.mapping, newRule(fields[0]?.value ?? "")])}>
          Add a rule
        </Button>
        <Button onClick={() => setProposing(true)}>Propose rules</Button>
      </div>
      {proposing && <Proposals form={form} document={document} slot={slot} add={(rules) => put([...slot.mapping, ...rules])} close={() => setProposing(false)} />}
    </>
  );
}
