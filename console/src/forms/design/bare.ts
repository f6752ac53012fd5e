/** A document without what has no effect: as it is written by hand, and as edits compare it. */

import type { FormDocument, Slot } from "../../api/schemas";

const isNothing = (value: unknown): boolean =>
  value === null || value === undefined || value === "" || value === false ||
  (Array.isArray(value) && value.length === 0) ||
  (typeof value === "object" && value !== null && Object.keys(value).length === 0);

function bareItem(item: object): Record<string, unknown> {
  return Object.fromEntries(Object.entries(item).filter(([name, value]) => name === "key" || !isNothing(value)));
}

function bareSlot(slot: Slot): unknown {
  const { parts, mapping, required, ...rest } = slot;
  return {
    ...bareItem(rest),
    ...(required === false ? { required } : {}),
    parts: parts.map(bareItem),
    mapping: mapping.map((rule) => ({ ...bareItem(rule), changes: rule.changes ?? [] })),
  };
}

export function bare(document: FormDocument): FormDocument {
  const { fields, slots, style, ...rest } = document;
  return {
    ...bareItem(rest),
    ...(style && style !== "whole" ? { style } : {}),
    fields: fields.map((entry) => ("slot" in entry ? { slot: entry.slot } : bareItem(entry))),
    slots: slots.map(bareSlot),
  } as unknown as FormDocument;
}
