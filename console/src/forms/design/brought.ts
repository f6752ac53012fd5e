/** What own layouts bring to the addresses of a form: it is on the form as people meet it. */

import type { Draft, FormDocument, Slot } from "../../api/schemas";
import { valueAt } from "../../../../embed/src/dictionary";

type Brought = Draft["brought"];

/** The same slot with the same bringing stays the same object, so that it is not shown anew. */
const known = new WeakMap<Slot, { brought: unknown; slot: Slot }>();

export function withBrought(document: FormDocument, brought: Brought): FormDocument {
  if (!Object.keys(brought).length) return document;
  const slots = document.slots.map((slot) => {
    const more = valueAt(brought, slot.key);
    if (!more) return slot;
    const before = known.get(slot);
    if (before && JSON.stringify(before.brought) === JSON.stringify(more)) return before.slot;
    const whole = { ...slot, parts: [...slot.parts, ...more.parts], mapping: [...slot.mapping, ...more.mapping] } as Slot;
    known.set(slot, { brought: more, slot: whole });
    return whole;
  });
  return { ...document, slots };
}

/** A form whose addresses name their countries: one that names none is there for all. */
export function withCountries(document: FormDocument, layouts: readonly { country_code: string }[]): FormDocument {
  if (document.slots.every((slot) => slot.countries?.length)) return document;
  const all = layouts.map((layout) => layout.country_code);
  return { ...document, slots: document.slots.map((slot) => (slot.countries?.length ? slot : { ...slot, countries: all })) };
}
