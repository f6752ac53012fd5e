/** Simple conditions in words, as people would say them; the others stay formulas. */

import type { Field, FormDocument } from "../api/schemas";

const NAME = "(?:'([^']+)'|([a-z][a-z0-9_]*))";
const IS_YES = new RegExp(`^=?\\s*${NAME}$`);
const IS_NO = new RegExp(`^=?\\s*NOT\\(${NAME}\\)$`, "i");
const IS_VALUE = new RegExp(`^=?\\s*${NAME} = (?:"((?:[^"]|"")*)"|(-?[0-9.]+))$`);

/** A condition in words; null where it is more than a comparison with one field's values. */
export function inWords(condition: string, document: FormDocument): string | null {
  const parts = /^=?\s*OR\((.*)\)$/i.exec(condition)?.[1]?.split("; ") ?? [condition];
  const found = parts.map((part) => comparison(part.trim(), document));
  const [first] = found;
  if (!first || found.some((one) => one?.label !== first.label)) return null;
  return `“${first.label}” is ${found.map((one) => one?.value).join(" or ")}`;
}

function comparison(text: string, document: FormDocument): { label: string; value: string } | null {
  for (const [pattern, value] of [[IS_YES, "yes"], [IS_NO, "no"]] as const) {
    const match = pattern.exec(text);
    const field = match && fieldOf(document, match[1] ?? match[2] ?? "");
    if (field) return { label: field.label || field.key, value };
  }
  const match = IS_VALUE.exec(text);
  const field = match && fieldOf(document, match[1] ?? match[2] ?? "");
  if (!match || !field) return null;
  const value = match[3]?.replaceAll('""', '"') ?? match[4] ?? "";
  const option = field.options?.find((one) => one.value === value);
  return { label: field.label || field.key, value: match[4] ? value : `“${option?.label ?? value}”` };
}

function fieldOf(document: FormDocument, key: string): Field | undefined {
  const fields = document.fields.flatMap((entry) => ("slot" in entry ? [] : [entry]));
  return [...fields, ...document.slots.flatMap((slot) => slot.parts)].find((field) => field.key === key);
}
