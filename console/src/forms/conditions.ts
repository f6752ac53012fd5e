/**
 * Simple conditions: read from their formula, said in words, and put together without typing.
 *
 * What is more than one comparison of a field or address stays a formula.
 */

import type { Field, FormDocument, Slot } from "../api/schemas";
import { asName } from "./design/keys";

export type Relation = "yes" | "no" | "is" | "is_not" | "includes" | "more" | "less" | "filled" | "empty" | "picked";

/** A field or address, and what has to be so. */
export interface Comparison {
  key: string;
  relation: Relation;
  value: string;
}

const NAME = "(?:'([^']+)'|([A-Za-z][A-Za-z0-9_]*))";
const VALUE = '(?:"((?:[^"]|"")*)"|(-?[0-9.]+))';
const FORMS: [Relation, RegExp][] = [
  ["yes", new RegExp(`^${NAME}$`)],
  ["no", new RegExp(`^NOT\\(${NAME}\\)$`, "i")],
  ["is", new RegExp(`^${NAME} *= *${VALUE}$`)],
  ["is_not", new RegExp(`^${NAME} *<> *${VALUE}$`)],
  ["more", new RegExp(`^${NAME} *> *${VALUE}$`)],
  ["less", new RegExp(`^${NAME} *< *${VALUE}$`)],
  ["includes", new RegExp(`^CHOSEN\\(${NAME} *[;,] *${VALUE}\\)$`, "i")],
  ["empty", new RegExp(`^ISBLANK\\(${NAME}\\)$`, "i")],
  ["empty", new RegExp(`^NOT\\(ISFILLED\\(${NAME}\\)\\)$`, "i")],
  ["filled", new RegExp(`^NOT\\(ISBLANK\\(${NAME}\\)\\)$`, "i")],
  ["filled", new RegExp(`^ISFILLED\\(${NAME}\\)$`, "i")],
  ["picked", new RegExp(`^ISPICKED\\(${NAME}\\)$`, "i")],
];
export const SAID: Record<Relation, string> = {
  yes: "is yes",
  no: "is no",
  is: "is",
  is_not: "is not",
  includes: "includes",
  more: "is more than",
  less: "is less than",
  filled: "is filled",
  empty: "is empty",
  picked: "was picked",
};
/** Relations that need a value beside them. */
export const COMPARES: ReadonlySet<Relation> = new Set(["is", "is_not", "includes", "more", "less"]);

/** The comparison that a condition is; null where it is more than one, or of nothing on the form. */
export function comparisonOf(condition: string, document: FormDocument): Comparison | null {
  const text = condition.trim().replace(/^=\s*/, "");
  for (const [relation, pattern] of FORMS) {
    const match = pattern.exec(text);
    if (!match) continue;
    const name = (match[1] ?? match[2] ?? "").toLowerCase();
    const item = itemsIn(document).find((one) => one.key.toLowerCase() === name);
    if (!item) continue;
    return { key: item.key, relation, value: match[3]?.replaceAll('""', '"') ?? match[4] ?? "" };
  }
  return null;
}

/** The relations that make sense for a field or address. */
export function relationsOf(item: Field | Slot): Relation[] {
  if ("countries" in item) return ["filled", "empty", "picked"];
  switch (item.type ?? "text") {
    case "yes_no":
    case "consent":
      return ["yes", "no"];
    case "choice":
      return ["is", "is_not", "filled", "empty"];
    case "choices":
      return ["includes", "filled", "empty"];
    case "number":
    case "formula":
      return ["is", "is_not", "more", "less", "filled", "empty"];
    default:
      return ["is", "is_not", "filled", "empty"];
  }
}

/** The formula of a comparison. */
export function asFormula({ key, relation, value }: Comparison, document: FormDocument): string {
  const item = itemsIn(document).find((one) => one.key === key);
  const name = asName(key);
  const isAddress = item !== undefined && "countries" in item;
  const isNumber = !isAddress && ["number", "formula"].includes(item?.type ?? "text") && /^-?[0-9]+(\.[0-9]+)?$/.test(value);
  const written = isNumber ? value : `"${value.replaceAll('"', '""')}"`;
  switch (relation) {
    case "yes":
      return name;
    case "no":
      return `NOT(${name})`;
    case "is":
      return `${name} = ${written}`;
    case "is_not":
      return `${name} <> ${written}`;
    case "more":
      return `${name} > ${written}`;
    case "less":
      return `${name} < ${written}`;
    case "includes":
      return `CHOSEN(${name}; ${written})`;
    case "picked":
      return `ISPICKED(${name})`;
    case "filled":
      return isAddress ? `ISFILLED(${name})` : `NOT(ISBLANK(${name}))`;
    case "empty":
      return isAddress ? `NOT(ISFILLED(${name}))` : `ISBLANK(${name})`;
  }
}

/** A condition in words; null where it is more than comparisons of one field or address. */
export function inWords(condition: string, document: FormDocument): string | null {
  const parts = /^=?\s*OR\((.*)\)$/i.exec(condition.trim())?.[1]?.split(/; ?/) ?? [condition];
  const found = parts.map((part) => comparisonOf(part, document));
  const [first] = found;
  if (!first || found.some((one) => one?.key !== first.key || one.relation !== first.relation)) return null;
  const values = found.map((one) => valueInWords(one ?? first, document)).filter(Boolean);
  return [`“${labelOf(document, first.key)}”`, SAID[first.relation], values.join(" or ")].filter(Boolean).join(" ");
}

function valueInWords({ key, relation, value }: Comparison, document: FormDocument): string {
  if (!COMPARES.has(relation)) return "";
  const item = itemsIn(document).find((one) => one.key === key);
  const options = item && "options" in item ? (item.options ?? []) : [];
  const option = options.find((one) => one.value.toLowerCase() === value.toLowerCase());
  const isNumber = item && "type" in item && item.type === "number";
  return isNumber ? value : `“${option?.label ?? option?.value ?? value}”`;
}

function labelOf(document: FormDocument, key: string): string {
  return itemsIn(document).find((item) => item.key === key)?.label || key;
}

/** Fields that formulas can speak of, and addresses. */
export function itemsIn(document: FormDocument): (Field | Slot)[] {
  const fields = document.fields.flatMap((entry) => ("slot" in entry ? [] : [entry]));
  return [...fields, ...document.slots, ...document.slots.flatMap((slot) => slot.parts)];
}
