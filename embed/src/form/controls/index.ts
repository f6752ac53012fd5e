/** The control of each type of field: one entry a type, as core/forms/field_types has one file. */

import type { Field } from "../model";
import { box } from "./box";
import { choice, choices } from "./choice";
import type { MakeControl } from "./control";
import { day, line, lines } from "./line";
import { link } from "./link";
import { phone } from "./phone";
import { valueAt } from "../../dictionary";

export type { Control, ControlPlace } from "./control";
export { SelectControl } from "./choice";

interface ControlOfType {
  make: MakeControl;
  /** Whether the label stands behind it, as behind a box to tick. */
  labelBehind?: boolean;
  /** Whether it must be filled wherever it is shown. */
  alwaysNeeded?: boolean;
}

const text: ControlOfType = { make: line() };
const CONTROLS: Record<string, ControlOfType> = {
  text,
  long_text: { make: lines },
  number: { make: line({ inputmode: "decimal" }) },
  date: { make: day },
  phone: { make: phone },
  email: { make: line({ type: "email", autocomplete: "email" }) },
  hidden: { make: line({ type: "hidden" }) },
  yes_no: { make: box, labelBehind: true },
  consent: { make: box, labelBehind: true, alwaysNeeded: true },
  choice: { make: choice },
  choices: { make: choices },
  link: { make: link },
};

/** How a field is filled. */
export function controlOf(field: Field): ControlOfType {
  return valueAt(CONTROLS, field.type ?? "text") ?? text;
}
