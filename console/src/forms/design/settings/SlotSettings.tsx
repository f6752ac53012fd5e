/** Settings of an address: its countries, what is asked for, where each part goes. */

import { Button, Select } from "antd";
import { useSearchParams } from "react-router";

import { ruleFills } from "../../../../../embed/src/form/rule-fills";
import type { Slot } from "../../../api/schemas";
import { useComponentLabels } from "../../../layouts/layouts";
import { USUAL_PARTS, changed } from "../edits";
import { ConditionSetting } from "./ConditionSetting";
import { CountrySettings } from "./CountrySettings";
import type { SettingsProps } from "./props";
import { KeySetting } from "./KeySetting";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";
import { TextSetting } from "./TextSetting";
import { TranslationSettings } from "./TranslationSettings";
import { AbilitySettings } from "./slot/AbilitySettings";
import { LookSettings } from "./slot/LookSettings";
import { OfferSettings } from "./slot/OfferSettings";
import { useLabelKey } from "./useLabelKey";
import { valueAt } from "../../../../../embed/src/dictionary";

export function SlotSettings(props: SettingsProps & { slot: Slot; select: (key: string) => void }): React.ReactNode {
  const { design, slot, select } = props;
  const { document, edit } = design;
  const [, setSearch] = useSearchParams();
  const openMapping = (key: string): void => setSearch({ mapping: key });
  const set = (settings: Partial<Slot>): void => edit(changed(document, slot.key, settings), `${slot.key} ${Object.keys(settings).join()}`);
  const named = useLabelKey(design, slot.key, select);
  return (
    <>
      <TextSetting label="Heading" value={slot.label} change={(label) => label.trim() && set({ label })} left={named} />
      <KeySetting design={design} itemKey={slot.key} select={select} />
      <SwitchSetting label="Must be filled" value={slot.required !== false} change={(required) => set({ required })} hint="While it is shown." />
      <CountrySettings slot={slot} set={set} />
      <TextSetting label="Help below the heading" value={slot.help} change={(help) => set({ help })} lines most={4000} />
      <Parts slot={slot} set={set} />
      <details className="more-settings">
        <summary>How it looks</summary>
        <LookSettings slot={slot} set={set} />
      </details>
      <details className="more-settings">
        <summary>What is offered</summary>
        <OfferSettings slot={slot} document={document} set={set} />
      </details>
      <details className="more-settings">
        <summary>What else it can do</summary>
        <AbilitySettings slot={slot} document={document} set={set} />
      </details>
      <Button block onClick={() => openMapping(slot.key)}>
        Where each part goes: {slot.mapping.length} rules
      </Button>
      <ConditionSetting {...props} item={slot} setting="shown_when" />
      {slot.required === false && <ConditionSetting {...props} item={slot} setting="required_when" />}
      <TranslationSettings design={design} item={slot} />
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
        ...slot.mapping.filter((rule) => !ruleFills(rule).some((key) => gone.has(key))),
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
            options={[...new Set([...USUAL_PARTS, "recipient", "place", ...there])].map((value) => ({ value, label: valueAt(labels, value) ?? value }))}
            onChange={change}
          />
        )}
      </Setting>
      {own.map((part) => (
        <TextSetting
          key={part.key}
          label={`Label of ${valueAt(labels, part.component ?? "") ?? part.component}`}
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
