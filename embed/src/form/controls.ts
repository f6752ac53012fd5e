/** The control of each type of field: one entry a type, as core/forms/field_types has one file. */

import { make } from "../dom";
import type { Field } from "./model";

export type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

interface ControlOfType {
  make(field: Field): Control;
  /** Whether the label stands behind it, as behind a box to tick. */
  labelBehind?: boolean;
  /** Whether it must be filled wherever it is shown. */
  alwaysNeeded?: boolean;
}

const line = (attributes: Record<string, string>): ControlOfType => ({
  make: (field) =>
    make("input", { type: "text", dir: "auto", placeholder: field.placeholder ?? null, ...attributes }),
});
const box: ControlOfType = { make: () => make("input", { type: "checkbox" }), labelBehind: true };
const text = line({});

const CONTROLS: Record<string, ControlOfType> = {
  text,
  long_text: {
    make: (field) => make("textarea", { rows: "4", dir: "auto", placeholder: field.placeholder ?? null }),
  },
  number: line({ inputmode: "decimal" }),
  date: {
    make: ({ least, most }) =>
      make("input", { type: "date", min: least == null ? null : String(least), max: most == null ? null : String(most) }),
  },
  phone: line({ type: "tel", autocomplete: "tel" }),
  email: line({ type: "email", autocomplete: "email" }),
  hidden: line({ type: "hidden" }),
  yes_no: box,
  consent: { ...box, alwaysNeeded: true },
  choice: { make: (field) => select((field.options ?? []).map((o) => [o.value, o.label ?? o.value])) },
};

/** How a field is filled. */
export function controlOf(field: Field): ControlOfType {
  return CONTROLS[field.type ?? "text"] ?? text;
}

/** A list to choose from, with nothing chosen. */
export function select(choices: [value: string, label: string][]): HTMLSelectElement {
  const first = make("option", { value: "" }, "Choose …");
  return make("select", {}, first, ...choices.map(([value, label]) => make("option", { value }, label)));
}
