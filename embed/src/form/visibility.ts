/** Which fields and slots are shown; the service has the same rule, held to the same vectors. */

import { type Condition, type FormDocument, type Value, fieldsOf } from "./model";

export type Values = Record<string, Value | undefined>;

/** A value as conditions compare it. */
export function valueAsText(value: Value | undefined): string {
  if (value === null || value === undefined) return "";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return String(value).trim();
}

/** Whether a condition holds, and that of the field that it looks at. */
export function holds(
  document: FormDocument,
  condition: Condition | null | undefined,
  values: Values,
  seen: string[] = [],
): boolean {
  if (!condition || seen.includes(condition.field)) return true;
  if (!condition.values.includes(valueAsText(values[condition.field]))) return false;
  const field = fieldsOf(document).find((f) => f.key === condition.field);
  return holds(document, field?.show_when, values, [...seen, condition.field]);
}
