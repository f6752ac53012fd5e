/** Keys of fields and slots: made from labels, and renamed wherever they are spoken of. */

import type { Field, FormDocument, Rule, Slot } from "../../api/schemas";

const LONGEST = 40;

/** A key made from a label, which nothing has yet. */
export function keyFrom(label: string, taken: ReadonlySet<string>, otherwise = "field"): string {
  const plain = label.normalize("NFKD").replace(/\p{M}/gu, "").replace(/ß/g, "ss").replace(/['’]/g, "").toLowerCase();
  let base = (plain.match(/[a-z0-9]+/g) ?? []).join("_").slice(0, LONGEST).replace(/_+$/, "");
  if (!/^[a-z]/.test(base)) base = base ? `${otherwise}_${base}` : otherwise;
  return unused(base, taken);
}

/** A key, or with the first number behind it that nothing has yet. */
export function unused(base: string, taken: ReadonlySet<string>): string {
  let key = base;
  for (let number = 2; taken.has(key); number++) key = `${base}_${number}`;
  return key;
}

/** All keys of a form: of fields, slots and their parts. */
export function keysOf(document: FormDocument): Set<string> {
  const fields = document.fields.flatMap((entry) => ("slot" in entry ? [] : [entry.key]));
  return new Set([...fields, ...document.slots.flatMap((slot) => [slot.key, ...slot.parts.map((part) => part.key)])]);
}

/** A form in which something has another key, also in formulas, rules and translations. */
export function renamed(document: FormDocument, old: string, key: string): FormDocument {
  const one = (name: string): string => (name === old ? key : name);
  const field = <Item extends Field | Slot>(item: Item): Item => {
    const changed = { ...item, key: one(item.key) };
    for (const setting of ["formula", "shown_when", "required_when"] as const) {
      const text = (changed as Field)[setting];
      if (text) (changed as Field)[setting] = renamedInFormula(text, old, key);
    }
    return changed;
  };
  const translations = Object.fromEntries(
    Object.entries(document.translations ?? {}).map(([language, texts]) => [
      language,
      { ...texts, items: Object.fromEntries(Object.entries(texts.items ?? {}).map(([name, said]) => [one(name), said])) },
    ]),
  );
  return {
    ...document,
    ...(document.translations ? { translations } : {}),
    fields: document.fields.map((entry) => ("slot" in entry ? { slot: one(entry.slot) } : field(entry))),
    slots: document.slots.map((slot) => ({
      ...field(slot),
      parts: slot.parts.map(field),
      mapping: slot.mapping.map((rule) => ruleInto(rule, one)),
      ...(slot.examples ? { examples: slot.examples.map((example) => ({ ...example, values: renamedKeys(example.values, one) })) } : {}),
    })),
  };
}

function ruleInto(rule: Rule, one: (key: string) => string): Rule {
  const { into, fit } = rule;
  return {
    ...rule,
    ...(into ? { into: one(into) } : {}),
    ...(fit ? { fit: { ...fit, into: fit.into.map(one), ...(fit.overflow ? { overflow: one(fit.overflow) } : {}) } } : {}),
  };
}

function renamedKeys<Value>(values: Record<string, Value>, one: (key: string) => string): Record<string, Value> {
  return Object.fromEntries(Object.entries(values).map(([key, value]) => [one(key), value]));
}

/** A name as formulas write it: in quotation marks where it is more than one word. */
export function asName(key: string): string {
  return /^[a-z][a-z0-9_]*$/.test(key) ? key : `'${key}'`;
}

/** A formula in which a name is another one; texts in it stay as they are. */
export function renamedInFormula(formula: string, old: string, key: string): string {
  const escaped = old.replace(/[.*+?^${}()|[\]\\-]/g, "\\$&");
  const name = new RegExp(`'${escaped}'|(?<![\\w'])${escaped}(?![\\w'(])`, "gi");
  return formula
    .split(/("(?:[^"]|"")*")/)
    .map((piece, at) => (at % 2 ? piece : piece.replace(name, asName(key))))
    .join("");
}
