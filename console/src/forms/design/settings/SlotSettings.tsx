/** Settings of an address: its countries, what is asked for, where each part goes. */

import { Button, Drawer, Select } from "antd";
import { useState } from "react";

import type { Slot } from "../../../api/schemas";
import { useComponentLabels } from "../../../layouts/layouts";
import { MappingTable } from "../../MappingTable";
import { USUAL_PARTS, changed } from "../edits";
import { ConditionSetting } from "./ConditionSetting";
import { CountrySettings } from "./CountrySettings";
import type { SettingsProps } from "./props";
import { KeySetting } from "./KeySetting";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";
import { TextSetting } from "./TextSetting";
import { TranslationSettings } from "./TranslationSettings";
import { useLabelKey } from "./useLabelKey";

const KINDS = ["address", "street", "place", "postcode", "town", "district", "region", "organisation", "building"];

export function SlotSettings(props: SettingsProps & { slot: Slot; select: (key: string) => void }): React.ReactNode {
  const { design, slot, select } = props;
  const { document, edit } = design;
  const [mapping, setMapping] = useState(false);
  const set = (settings: Partial<Slot>): void => edit(changed(document, slot.key, settings), `${slot.key} ${Object.keys(settings).join()}`);
  const named = useLabelKey(design, slot.key, select);
  return (
    <>
      <TextSetting label="Heading" value={slot.label} change={(label) => label.trim() && set({ label })} left={named} />
      <KeySetting design={design} itemKey={slot.key} select={select} />
      <SwitchSetting label="Must be filled" value={slot.required !== false} change={(required) => set({ required })} hint="While it is shown." />
      <CountrySettings slot={slot} set={set} />
      <TextSetting label="Help below the heading" value={slot.help} change={(help) => set({ help })} lines most={4000} />
      <Setting label="Offered as people type" hint={slot.kinds?.length ? undefined : "Everything that can be found."}>
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            placeholder="everything"
            value={slot.kinds ?? []}
            options={KINDS.map((value) => ({ value, label: value }))}
            onChange={(kinds) => set({ kinds })}
          />
        )}
      </Setting>
      <Parts slot={slot} set={set} />
      <Button block onClick={() => setMapping(true)}>
        Where each part goes: {slot.mapping.length} rules
      </Button>
      <ConditionSetting {...props} item={slot} setting="shown_when" />
      {slot.required === false && <ConditionSetting {...props} item={slot} setting="required_when" />}
      <TranslationSettings design={design} item={slot} />
      <Drawer title={`Where each part of “${slot.label}” goes`} open={mapping} onClose={() => setMapping(false)} size={760} destroyOnHidden>
        <MappingTable document={document} slot={slot} edit={(next) => set({ mapping: next.mapping })} />
      </Drawer>
    </>
  );
}

/** The parts that the address brings: a country shows those of them that it asks for. */
function Parts({ slot, set }: { slot: Slot; set: (settings: Partial<Slot>) => void }): React.ReactNode {
  const labels = useComponentLabels();
  const there = slot.parts.flatMap((part) => part.component ?? []);
  const own = slot.parts.filter((part) => part.component && part.label);
  const change = (components: string[]): void => {
    const kept = slot.parts.filter((part) => !part.component || components.includes(part.component));
    const missing = components.filter((name) => !there.includes(name));
    const parts = missing.map((component) => ({ key: `${slot.key}_${component}`, component }));
    const gone = new Set(slot.parts.filter((part) => !kept.includes(part)).map((part) => part.key));
    set({
      parts: [...kept, ...parts],
      mapping: [
        ...slot.mapping.filter((rule) => !gone.has(rule.into)),
        ...parts.map((part) => ({ components: [part.component], into: part.key, changes: [] })),
      ],
    });
  };
  return (
    <>
      <Setting label="Fields of its own" hint="A country shows those of them that it asks for. Without any, everything goes into other fields.">
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            value={there}
            options={[...new Set([...USUAL_PARTS, "recipient", "place", ...there])].map((value) => ({ value, label: labels[value] ?? value }))}
            onChange={change}
          />
        )}
      </Setting>
      {own.map((part) => (
        <TextSetting
          key={part.key}
          label={`Label of ${labels[part.component ?? ""] ?? part.component}`}
          hint="The same in every country; empty: as the country calls it."
          value={part.label}
          change={(label) => set({ parts: slot.parts.map((one) => (one === part ? labelled(one, label) : one)) })}
        />
      ))}
    </>
  );
}

function labelled(part: Slot["parts"][number], label: string): Slot["parts"][number] {
  const { label: _, ...rest } = part;
  return label ? { ...rest, label } : rest;
}
