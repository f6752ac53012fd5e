/** The shapes of a form and of a layout, as the service answers them. */

export type Value = string | number | boolean | null;

export interface Condition {
  field: string;
  values: string[];
}

export interface Field {
  key: string;
  type?: string | null;
  label?: string | null;
  required?: boolean;
  help?: string | null;
  options?: { value: string; label?: string | null }[] | null;
  max_length?: number | null;
  show_when?: Condition | null;
  component?: string | null;
}

export interface Rule {
  components: string[];
  into: string;
  join?: string | null;
  changes: string[];
}

export interface Slot {
  key: string;
  label: string;
  countries: string[];
  country?: string | null;
  kinds: string[];
  required: boolean;
  help?: string | null;
  show_when?: Condition | null;
  parts: Field[];
  mapping: Rule[];
}

export interface FormDocument {
  key: string;
  kind: "record" | "web";
  title: string;
  intro?: string | null;
  thanks?: string | null;
  fields: (Field | { slot: string })[];
  slots: Slot[];
}

export interface LayoutComponent {
  component: string;
  label: string;
  required: boolean;
  options: { code: string; name: string; latin: string }[] | null;
}

export interface Layout {
  country_code: string;
  name: string;
  /** Of the labels, BCP 47. */
  language: string;
  components: LayoutComponent[];
  /** What the components that are not asked for are called. */
  labels: Record<string, string>;
  /** Whether there are any addresses of the country to search in. */
  has_addresses: boolean;
  /** Components that an administrator's own layout took out of what is asked for. */
  hidden: string[];
  masks: string[];
}

/** What a check of components answers, as far as a form asks. */
export interface CheckAnswer {
  components: Record<string, string>;
  problems: { component: string; detail: string }[];
}

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
