/** A target read as a form, so that its mapping is made as a form's is. */

import type { FormDocument, Slot } from "../api/schemas";
import type { Mapped, MappingPlace } from "../forms/mapping/place";
import type { Edited } from "../parts/documents/useKeeping";
import type { AnyTarget, TargetDraft } from "./useTargets";

type Address = NonNullable<AnyTarget["addresses"]>[number];

/** The form that has the target's fields and its addresses. */
export function asForm(target: AnyTarget): FormDocument {
  return {
    key: target.key,
    kind: "record",
    title: target.title,
    fields: (target.fields ?? []).map(({ key, label, max_length, several_lines }) => ({
      key,
      label: label ?? key,
      max_length: max_length ?? null,
      type: several_lines ? "long_text" : "text",
    })),
    slots: ((target.addresses ?? []) as Address[]).map((address) => ({ ...address, parts: [], mapping: address.mapping ?? [] })),
  } as unknown as FormDocument;
}

/** The target with what was changed of its addresses in that form. */
export function fromForm(target: AnyTarget, form: FormDocument): AnyTarget {
  const slots = new Map(form.slots.map((slot) => [slot.key, slot]));
  const addresses = ((target.addresses ?? []) as Address[]).map((address) => {
    const slot: Slot | undefined = slots.get(address.key);
    return slot ? { ...address, mapping: slot.mapping, examples: slot.examples ?? [] } : address;
  });
  return { ...target, addresses } as unknown as AnyTarget;
}

export const onTarget = (target: AnyTarget): MappingPlace => ({
  whole: `targets/${target.key}`,
  of: (slot) => `targets/${target.key}/addresses/${slot}`,
  sent: (form) => fromForm(target, form),
  pointer: (given) => given.replace(/^\/addresses/, "/slots"),
  back: "Back to the fields",
  isForm: false,
});

export const mappedTarget = ({ document, edit, keeper }: Edited<AnyTarget, TargetDraft>): Mapped => ({
  document: asForm(document),
  edit: (form, what) => edit(fromForm(document, form), what),
  kept: asForm(keeper.kept.body.document),
  now: () => keeper.now(),
});
