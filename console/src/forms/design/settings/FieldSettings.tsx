/** Settings of a field: those that its type has. */

import { InputNumber, Segmented, Select } from "antd";

import type { Field } from "../../../api/schemas";
import { changed } from "../edits";
import { useFieldTypes } from "../fieldTypes";
import { ConditionSetting } from "./ConditionSetting";
import { DefaultSetting } from "./DefaultSetting";
import { FormulaSetting } from "./FormulaSetting";
import type { SettingsProps } from "./props";
import { KeySetting } from "./KeySetting";
import { LinkSettings } from "./LinkSettings";
import { PhoneSettings } from "./PhoneSettings";
import { OptionsSetting } from "./OptionsSetting";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";
import { TextSetting } from "./TextSetting";
import { TranslationSettings } from "./TranslationSettings";
import { useLabelKey } from "./useLabelKey";

const TYPED = new Set(["text", "long_text", "number", "email", "phone"]);
const LENGTH = new Set(["text", "long_text", "email", "phone", "hidden"]);

export function FieldSettings(props: SettingsProps & { field: Field; select: (key: string) => void }): React.ReactNode {
  const { design, field, select } = props;
  const { document, edit } = design;
  const types = useFieldTypes();
  const name = field.type ?? "text";
  const type = types.find((one) => one.name === name);
  const set = (settings: Partial<Field>): void => edit(changed(document, field.key, settings), `${field.key} ${Object.keys(settings).join()}`);
  const has = (setting: string): boolean => type?.settings.includes(setting) ?? false;
  const named = useLabelKey(design, field.key, select);
  return (
    <>
      <TextSetting label={name === "note" ? "Text" : "Label"} value={field.label} change={(label) => set({ label })} left={named} lines={name === "note" || name === "consent"} />
      <KeySetting design={design} itemKey={field.key} select={select} />
      <TypeSetting field={field} types={types} set={set} />
      {has("formula") && <FormulaSetting {...props} item={field} setting="formula" label="What it comes to" />}
      {name === "link" && <LinkSettings field={field} document={document} set={set} />}
      {has("phone") && <PhoneSettings field={field} document={document} set={set} />}
      {has("options") && <OptionsSetting field={field} set={set} />}
      {type?.is_filled && !type.always_needed && name !== "hidden" && name !== "yes_no" && (
        <SwitchSetting label="Must be filled" value={Boolean(field.required)} change={(required) => set({ required })} />
      )}
      <TextSetting label="Help below it" value={field.help} change={(help) => set({ help })} lines most={4000} />
      {TYPED.has(name) && (
        <TextSetting label="Example inside it" value={field.placeholder} change={(placeholder) => set({ placeholder })} />
      )}
      {type?.is_filled && !type.always_needed && name !== "link" && <DefaultSetting field={field} set={set} />}
      {has("unit") && <TextSetting label="Unit behind it" value={field.unit} change={(unit) => set({ unit })} most={20} placeholder="km" />}
      {has("least") && <Limits field={field} set={set} isDate={name === "date"} />}
      {has("decimals") && (
        <NumberSetting label="Decimals at most" value={field.decimals} change={(decimals) => set({ decimals })} most={10} least={0} />
      )}
      {LENGTH.has(name) && (
        <NumberSetting label="Characters at most" value={field.max_length} change={(max_length) => set({ max_length })} most={100_000} least={1} />
      )}
      {has("columns") && <Columns field={field} set={set} />}
      {has("foldable") && <SwitchSetting label="Can be folded" value={Boolean(field.foldable)} change={(foldable) => set({ foldable, ...(foldable ? {} : { folded: false }) })} />}
      {has("foldable") && field.foldable && <SwitchSetting label="Folded at first" value={Boolean(field.folded)} change={(folded) => set({ folded })} />}
      {has("hidden") && <SwitchSetting label="Worked out without being seen" value={Boolean(field.hidden)} change={(hidden) => set({ hidden })} />}
      <ConditionSetting {...props} item={field} setting="shown_when" />
      {type?.is_filled && !type.always_needed && name !== "hidden" && !field.required && <ConditionSetting {...props} item={field} setting="required_when" />}
      <TranslationSettings design={design} item={field} />
    </>
  );
}

type Set = (settings: Partial<Field>) => void;

function TypeSetting(props: { field: Field; types: ReturnType<typeof useFieldTypes>; set: Set }): React.ReactNode {
  const { field, types, set } = props;
  return (
    <Setting label="Kind" hint={types.find((type) => type.name === (field.type ?? "text"))?.says}>
      {(id) => (
        <Select
          id={id}
          className="whole-width"
          showSearch={{ optionFilterProp: "label" }}
          value={field.type ?? "text"}
          options={types.map((type) => ({ value: type.name, label: type.title }))}
          onChange={(name) => set(converted(field, types, name))}
        />
      )}
    </Setting>
  );
}

/** The settings of a field that becomes another type: those that type does not have are left out. */
function converted(field: Field, types: ReturnType<typeof useFieldTypes>, name: string): Partial<Field> {
  const kept = new Set(types.find((type) => type.name === name)?.settings ?? []);
  const own = new Set(types.flatMap((type) => type.settings));
  const left = [...own].filter((setting) => !kept.has(setting)).map((setting) => [setting, undefined]);
  const options = kept.has("options") && !field.options?.length ? { options: [{ value: "first", label: "First" }] } : {};
  const formula = kept.has("formula") && !field.formula ? { formula: '""' } : {};
  return { ...Object.fromEntries(left), ...options, ...formula, default: null, type: name === "text" ? null : name };
}

function NumberSetting(props: {
  label: string;
  value: number | null | undefined;
  change: (value: number | null) => void;
  least: number;
  most: number;
}): React.ReactNode {
  const { label, value, change, least, most } = props;
  return (
    <Setting label={label}>
      {(id) => <InputNumber id={id} className="whole-width" min={least} max={most} precision={0} value={value ?? null} onChange={change} />}
    </Setting>
  );
}

function Limits({ field, set, isDate }: { field: Field; set: Set; isDate: boolean }): React.ReactNode {
  const limits = [["least", isDate ? "First day" : "At least"], ["most", isDate ? "Last day" : "At most"]] as const;
  return (
    <div className="setting-pair">
      {limits.map(([name, label]) => (
        <Setting key={name} label={label}>
          {(id) =>
            isDate ? (
              <input id={id} type="date" className="date-input" value={String(field[name] ?? "")} onChange={(event) => set({ [name]: event.target.value || null })} />
            ) : (
              <InputNumber id={id} className="whole-width" value={field[name] as number | null} onChange={(value) => set({ [name]: value })} />
            )
          }
        </Setting>
      ))}
    </div>
  );
}

function Columns({ field, set }: { field: Field; set: Set }): React.ReactNode {
  return (
    <Setting label="Beside each other" hint="On a phone always one below another.">
      {(id) => (
        <Segmented
          id={id}
          block
          value={field.columns ?? 1}
          options={[{ value: 1, label: "One column" }, { value: 2, label: "Two columns" }]}
          onChange={(columns) => set({ columns: columns === 1 ? null : columns })}
        />
      )}
    </Setting>
  );
}
