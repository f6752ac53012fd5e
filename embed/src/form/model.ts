/** Forms and layouts, as the service answers them; what may be left out of a form stays optional. */

import type * as api from "../api";

/** What needs just some of its properties. */
type Loose<Whole, Needed extends keyof Whole> = Pick<Whole, Needed> & Partial<Whole>;

export type Value = string | number | boolean | string[] | null;
export type Field = Loose<Omit<api.FieldSchema, "phone">, "key"> & { phone?: Partial<api.PhoneSettings> | null };
/** A component, or a group that is joined by itself. */
export type RulePart = string | { components: RulePart[]; join?: string | null; changes?: api.RuleSchema["changes"] };
export type Rule = Partial<Omit<api.RuleSchema, "fit" | "components">> & {
  components?: RulePart[] | null;
  fit?: Loose<api.FitSchema, "into"> | null;
};
export type Slot = Loose<Omit<api.SlotSchema, "parts" | "mapping" | "countries" | "near" | "map">, "key" | "label" | "kinds" | "required"> & {
  /** As it is answered to be filled, each country by its code. */
  countries: string[];
  near?: Partial<api.NearSchema> | null;
  map?: Partial<api.MapSchema> | null;
  parts: Field[];
  mapping: Rule[];
};
export type FormDocument = Loose<Omit<api.FormDocument, "fields" | "slots" | "public">, "key" | "kind" | "title"> & {
  fields: (Field | api.SlotPlace)[];
  slots: Slot[];
  public?: Partial<api.PublicSettings> | null;
};
export type LayoutComponent = api.LayoutComponentSchema;
/** Of a layout, what a form works with. */
export type Layout = Pick<
  api.LayoutAnswer,
  "country_code" | "name" | "language" | "components" | "labels" | "has_addresses" | "hidden" | "masks"
>;
/** What a check of components answers, as far as a form asks. */
export type CheckAnswer = Pick<api.CheckComponentsAnswer, "components" | "problems">;

/** Fields and slots in the order on the form; slots that no entry places come last. */
export function itemsOf(document: FormDocument): (Field | Slot)[] {
  const slots = new Map(document.slots.map((slot) => [slot.key, slot]));
  const items: (Field | Slot)[] = [];
  for (const entry of document.fields) {
    if (!("slot" in entry)) items.push(entry);
    else {
      const slot = slots.get(entry.slot);
      if (slot && slots.delete(entry.slot)) items.push(slot);
    }
  }
  return [...items, ...slots.values()];
}

/** Every field, the parts of slots among them. */
export function fieldsOf(document: FormDocument): Field[] {
  return itemsOf(document).flatMap((item) => ("parts" in item ? item.parts : [item]));
}
