/** Words for the fields of targets. */

import type { FieldType, TargetField } from "../useTargets";

export const TYPES: { value: FieldType; label: string }[] = [
  { value: "text", label: "a text" },
  { value: "list", label: "a list of options" },
  { value: "radio", label: "radio buttons" },
  { value: "switch", label: "a switch" },
  { value: "hidden", label: "a hidden input" },
  { value: "region", label: "an editable region" },
];
/** Types in which several lines can be typed. */
export const TYPED: ReadonlySet<FieldType> = new Set(["text", "hidden", "region"]);
export const EMPTIES: { value: string; label: string }[] = [
  { value: "line", label: "Home, Shift+End, Delete" },
  { value: "box", label: "Ctrl+Home, Ctrl+Shift+End, Delete" },
  { value: "own", label: "keys of its own" },
  { value: "erase", label: "Backspace, as often as it takes characters" },
  { value: "no", label: "not at all" },
];
export const PLACES: { value: string; label: string }[] = [
  { value: "screen", label: "on the screen" },
  { value: "offered", label: "not on the screen: offered after a run, to be copied" },
  { value: "nowhere", label: "not on the screen, and not offered" },
];
export const WAYS: Record<string, string> = { css: "selector", name: "name", id: "id", autocomplete: "autofill token", label: "label", class_name: "class" };

export const fieldName = (field: TargetField): string => field.label || field.key;
