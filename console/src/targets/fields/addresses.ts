/** Which address of a target fills a field, and what a target is without a field. */

import { ruleFills } from "../../../../embed/src/form/rule-fills";
import type { AnyTarget, TargetAddress, TargetField } from "../useTargets";

export const addressesOf = (target: AnyTarget): TargetAddress[] => (target.addresses ?? []) as TargetAddress[];
export const fieldsOf = (target: AnyTarget): TargetField[] => (target.fields ?? []) as TargetField[];

/** The keys of the fields that an address fills. */
export const filledBy = (address: TargetAddress): Set<string> => new Set((address.mapping ?? []).flatMap((rule) => ruleFills(rule as never)));

/** The target with other fields; what is not known of one stays as it was. */
export const withFields = (target: AnyTarget, fields: TargetField[]): AnyTarget => ({ ...target, fields }) as unknown as AnyTarget;

/** The target with something else of one field. */
export const withField = (target: AnyTarget, key: string, changed: Partial<TargetField>): AnyTarget =>
  withFields(target, fieldsOf(target).map((one) => (one.key === key ? ({ ...one, ...changed } as TargetField) : one)));

/** The target without a field: no rule names it any more. */
export function withoutField(target: AnyTarget, key: string): AnyTarget {
  const addresses = addressesOf(target).map((address) => ({
    ...address,
    mapping: (address.mapping ?? []).flatMap((rule) => {
      if (rule.into === key) return [];
      if (!rule.fit?.into.includes(key)) return [rule];
      const into = rule.fit.into.filter((one) => one !== key);
      return into.length ? [{ ...rule, fit: { ...rule.fit, into } }] : [];
    }),
  }));
  return { ...withFields(target, fieldsOf(target).filter((one) => one.key !== key)), addresses } as unknown as AnyTarget;
}

export function newField(target: AnyTarget): TargetField {
  const keys = new Set(fieldsOf(target).map((one) => one.key));
  let number = keys.size + 1;
  while (keys.has(`field-${number}`)) number += 1;
  const own = target.kind === "program" ? { name: "", further: 1, empty: null, where: "screen" } : { find: [], writes: "any" };
  return { key: `field-${number}`, label: `Field ${number}`, type: "text", several_lines: false, max_length: null, options: [], block: "", place: null, pieces: [], ...own } as unknown as TargetField;
}
