/** The fields that rules can write into, by the labels that people know. */

import type { FormDocument, Slot } from "../../api/schemas";
import { valueAt } from "../../../../embed/src/dictionary";

export interface FieldChoice {
  value: string;
  label: string;
}

const WITHOUT_VALUE = new Set(["heading", "note", "page", "section", "formula"]);

/** The slot's own parts first, then the form's other fields. */
export function fieldChoices(document: FormDocument, slot: Slot, labels: Record<string, string>): FieldChoice[] {
  const others = document.fields.flatMap((entry) => ("slot" in entry || WITHOUT_VALUE.has(entry.type ?? "text") ? [] : [entry]));
  return [...slot.parts, ...others].map((field) => ({
    value: field.key,
    label: field.label || (field.component && valueAt(labels, field.component)) || field.key,
  }));
}

/** Whether a choice is called so, by its label or its key. */
export function hasText(typed: string, option: { value?: unknown; label?: unknown } | undefined): boolean {
  return `${String(option?.label)} ${String(option?.value)}`.toLowerCase().includes(typed.toLowerCase());
}
