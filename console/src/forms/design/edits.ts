/** What can be done to a form that is being made: each gives another document, none changes one. */

import type { Field, FormDocument, Slot } from "../../api/schemas";
import { keysOf, renamed, unused } from "./keys";

export type Item = Field | Slot;
type Entry = FormDocument["fields"][number];

/** Components that a new address has a part for; its country's layout shows those that it asks for. */
export const USUAL_PARTS = [
  "organisation", "unit", "building", "number", "street", "po_box", "district", "town", "region", "region_code", "postcode",
];

export const keyOfEntry = (entry: Entry): string => ("slot" in entry ? entry.slot : entry.key);

export function isSlot(item: Item): item is Slot {
  return "countries" in item;
}

/** The fields and slots of a form, in its order; slots that no entry places come last. */
export function itemsOf(document: FormDocument): Item[] {
  const slots = new Map(document.slots.map((slot) => [slot.key, slot]));
  return placed(document).fields.flatMap((entry) => {
    if (!("slot" in entry)) return [entry];
    const slot = slots.get(entry.slot);
    return slot ? [slot] : [];
  });
}

export function itemOf(document: FormDocument, key: string): Item | undefined {
  return itemsOf(document).find((item) => item.key === key);
}

/** A form in which every slot has its entry. */
function placed(document: FormDocument): FormDocument {
  const there = new Set(document.fields.map(keyOfEntry));
  const missing = document.slots.filter((slot) => !there.has(slot.key)).map((slot) => ({ slot: slot.key }));
  return missing.length ? { ...document, fields: [...document.fields, ...missing] } : document;
}

/** Where an item stands among the entries. */
export function placeOf(document: FormDocument, key: string): number {
  return placed(document).fields.findIndex((entry) => keyOfEntry(entry) === key);
}

/** A form with one more item, at a place among its entries. */
export function added(document: FormDocument, item: Item, at: number): FormDocument {
  const whole = placed(document);
  const entry: Entry = isSlot(item) ? { slot: item.key } : item;
  return {
    ...whole,
    fields: whole.fields.toSpliced(at, 0, entry),
    slots: isSlot(item) ? [...whole.slots, item] : whole.slots,
  };
}

/** A form without an item. */
export function removed(document: FormDocument, key: string): FormDocument {
  const whole = placed(document);
  return {
    ...whole,
    fields: whole.fields.filter((entry) => keyOfEntry(entry) !== key),
    slots: whole.slots.filter((slot) => slot.key !== key),
  };
}

/** A form in which an item stands at another place; a section or page takes along what stands in it. */
export function moved(document: FormDocument, key: string, to: number): FormDocument {
  const whole = placed(document);
  const from = placeOf(whole, key);
  const entry = whole.fields[from];
  if (!entry || from === to) return whole;
  return { ...whole, fields: whole.fields.toSpliced(from, 1).toSpliced(to, 0, entry) };
}

/** A form in which an item has other settings; those that are undefined are left out of it. */
export function changed(document: FormDocument, key: string, settings: Partial<Field> | Partial<Slot>): FormDocument {
  const patch = <One extends Item>(item: One): One => {
    if (item.key !== key) return item;
    const next: Record<string, unknown> = { ...item, ...settings };
    for (const [name, value] of Object.entries(next)) {
      const isDefault = value === undefined || value === null || value === "" || (value === false && name !== "required");
      if (isDefault || (name === "required" && value === isSlot(item))) delete next[name];
    }
    return next as One;
  };
  return {
    ...document,
    fields: document.fields.map((entry) => ("slot" in entry ? entry : patch(entry))),
    slots: document.slots.map((slot) => {
      const next = patch(slot);
      const parts = next.parts.map(patch);
      return parts.some((part, at) => part !== next.parts[at]) ? { ...next, parts } : next;
    }),
  };
}

/** A form with an item once more, below it; a section with all that stands in it. */
export function duplicated(document: FormDocument, key: string): { document: FormDocument; key: string } {
  const whole = placed(document);
  const at = placeOf(whole, key);
  const keys = withinSection(whole, key);
  let next = whole;
  let first = key;
  keys.forEach((one, number) => {
    const item = itemOf(next, one);
    if (!item) return;
    const copy = copied(next, item);
    if (number === 0) first = copy.key;
    next = added(next, copy, at + keys.length + number);
  });
  return { document: next, key: first };
}

/** The keys of an item, and where it is a section, of all that stands in it. */
export function withinSection(document: FormDocument, key: string): string[] {
  const items = itemsOf(document);
  const at = items.findIndex((item) => item.key === key);
  const type = typeOf(items[at]);
  if (type !== "section") return [key];
  const rest = items.slice(at + 1);
  const end = rest.findIndex((item) => ["section", "page"].includes(typeOf(item)));
  return [key, ...rest.slice(0, end < 0 ? rest.length : end).map((item) => item.key)];
}

export function typeOf(item: Item | undefined): string {
  if (!item) return "";
  return isSlot(item) ? "slot" : (item.type ?? "text");
}

function copied(document: FormDocument, item: Item): Item {
  const taken = keysOf(document);
  const key = unused(item.key, taken);
  taken.add(key);
  if (!isSlot(item)) return { ...item, key };
  // A slot with its mapping: rules into its own parts follow them.
  let slot: FormDocument = { key: "x", kind: "record", title: "x", fields: [], slots: [item] };
  for (const part of item.parts) {
    const name = unused(part.key.startsWith(item.key) ? part.key.replace(item.key, key) : part.key, taken);
    taken.add(name);
    slot = renamed(slot, part.key, name);
  }
  return { ...(slot.slots[0] ?? item), key };
}

/** A slot with a part for each usual component, filled by a rule each. */
export function newSlot(key: string, label: string, countries: string[]): Slot {
  return {
    key,
    label,
    countries,
    parts: USUAL_PARTS.map((component) => ({ key: `${key}_${component}`, component })),
    mapping: USUAL_PARTS.map((component) => ({ components: [component], into: `${key}_${component}`, changes: [] })),
  } as unknown as Slot;
}

/** What people know an item by. */
export function nameOf(item: Item): string {
  return item.label || (typeOf(item) === "section" ? "Section" : typeOf(item) === "page" ? "Page" : item.key);
}
