/** When something is shown or needed: put together from three selects, or written as a formula. */

import { Button, Input, Select } from "antd";
import { useState } from "react";

import type { Field, FormDocument, Slot } from "../../../api/schemas";
import { COMPARES, type Comparison, type Relation, SAID, asFormula, comparisonOf, inWords, relationsOf } from "../../conditions";
import { changed, isSlot, itemsOf, nameOf } from "../edits";
import { FormulaSetting } from "./FormulaSetting";
import type { SettingsProps } from "./props";

const TITLES = {
  shown_when: { title: "Shown", always: "always", when: "Only on a condition" },
  required_when: { title: "Must be filled", always: "never", when: "On a condition" },
} as const;
/** Nothing can be asked of these. */
const UNASKED = new Set(["heading", "note", "page", "section"]);

export function ConditionSetting(
  props: SettingsProps & { item: Field | Slot; setting: "shown_when" | "required_when" },
): React.ReactNode {
  const { design, item, setting } = props;
  const { document, edit } = design;
  const [asText, setAsText] = useState(false);
  const { title, always, when } = TITLES[setting];
  const condition = item[setting] ?? "";
  const put = (text: string | null): void => edit(changed(document, item.key, { [setting]: text }), `${item.key} ${setting}`);
  const simple = condition ? comparisonOf(condition, document) : null;
  const choices = askable(document, item);
  const words = condition ? inWords(condition, document) : null;
  return (
    <fieldset className="setting condition">
      <legend>{title}</legend>
      {!condition && (
        <p className="condition-none">
          {always}{" "}
          <Button
            size="small"
            disabled={!choices.length}
            onClick={() => {
              const first = choices[0];
              if (first) put(asFormula(begun(first), document));
            }}
          >
            {when} …
          </Button>
          {!choices.length && <span className="hint"> Needs something before it that can be asked for.</span>}
        </p>
      )}
      {condition && simple && !asText && (
        <Selects document={document} choices={choices} comparison={simple} put={(next) => put(asFormula(next, document))} />
      )}
      {condition && (!simple || asText) && <FormulaSetting {...props} item={item} setting={setting} label={`${title} when`} />}
      {condition && (
        <p className="condition-words hint">
          {words && <>{title} when {words}. </>}
          {simple && (
            <Button type="link" size="small" onClick={() => setAsText(!asText)}>
              {asText ? "Choose instead" : "Write a formula"}
            </Button>
          )}
          <Button type="link" size="small" onClick={() => put(null)}>
            Without a condition
          </Button>
        </p>
      )}
    </fieldset>
  );
}

/** What can be asked for where an item stands: what comes before it. */
function askable(document: FormDocument, item: Field | Slot): (Field | Slot)[] {
  const items = itemsOf(document);
  const before = items.slice(0, items.findIndex((one) => one.key === item.key));
  return before.filter((one) => isSlot(one) || !UNASKED.has(one.type ?? "text")).reverse();
}

/** A comparison with an item, to begin with. */
function begun(item: Field | Slot): Comparison {
  const [relation = "filled" as Relation] = relationsOf(item);
  const option = "options" in item ? item.options?.[0]?.value : undefined;
  return { key: item.key, relation, value: COMPARES.has(relation) ? (option ?? "") : "" };
}

function Selects(props: {
  document: FormDocument;
  choices: (Field | Slot)[];
  comparison: Comparison;
  put: (comparison: Comparison) => void;
}): React.ReactNode {
  const { document, choices, comparison, put } = props;
  const item = itemsOf(document).find((one) => one.key === comparison.key);
  const options = item && "options" in item ? (item.options ?? []) : [];
  const asked = item && !choices.includes(item) ? [item, ...choices] : choices;
  return (
    <div className="condition-selects">
      <Select
        aria-label="What is asked for"
        value={comparison.key}
        showSearch={{ optionFilterProp: "label" }}
        options={asked.map((one) => ({ value: one.key, label: nameOf(one) }))}
        onChange={(key) => {
          const next = asked.find((one) => one.key === key);
          if (next) put(begun(next));
        }}
      />
      <Select
        aria-label="How it is compared"
        value={comparison.relation}
        options={(item ? relationsOf(item) : [comparison.relation]).map((value) => ({ value, label: SAID[value] }))}
        onChange={(relation) => put({ ...comparison, relation, value: COMPARES.has(relation) ? comparison.value || (options[0]?.value ?? "") : "" })}
      />
      {COMPARES.has(comparison.relation) &&
        (options.length ? (
          <Select
            aria-label="With what"
            value={comparison.value}
            options={options.map((option) => ({ value: option.value, label: option.label ?? option.value }))}
            onChange={(value) => put({ ...comparison, value })}
          />
        ) : (
          <Input aria-label="With what" value={comparison.value} onChange={(event) => put({ ...comparison, value: event.target.value })} />
        ))}
    </div>
  );
}
