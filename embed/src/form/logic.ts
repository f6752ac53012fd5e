/** What is shown and needed, and what formulas come to; core/forms/logic.py has the same rules. */

import { dictionary, valueAt } from "../dictionary";
import { type AddressValue, NO_ADDRESS } from "../formula/address-value";
import { Budget } from "../formula/budget";
import { evaluate, type FormulaNode } from "../formula/evaluate";
import { Day, Problem, toDate, toNumber, toText, toYesNo, type Value } from "../formula/values";
import { ENGLISH, type Words } from "../words";
import { type Field, type FormDocument, type Slot, type Value as Typed, itemsOf } from "./model";

export interface FormLogic {
  order: readonly string[];
  formulas: Readonly<Record<string, FormulaNode>>;
  shown: Readonly<Record<string, FormulaNode>>;
  required: Readonly<Record<string, FormulaNode>>;
}

/** A form as the service answers it. */
export interface Loaded {
  document: FormDocument;
  logic: FormLogic;
  version: number | null;
  tiles?: { address: string; attribution: string } | null;
}

export interface Worked {
  values: Readonly<Record<string, Value>>;
  shown: ReadonlySet<string>;
  needed: ReadonlySet<string>;
  /** Key of the field or slot whose formulas had no steps left; null where all was worked out. */
  stoppedAt: string | null;
}

export interface Typing {
  values: Readonly<Record<string, Typed | undefined>>;
  slots: Readonly<Record<string, AddressValue | undefined>>;
  today: number;
}

/** Works a form out on what was typed; what is not shown counts as not given. */
export function workOut(document: FormDocument, logic: FormLogic, typing: Typing): Worked {
  const places = placesOf(document);
  const values = dictionary<Value>();
  const slots = dictionary<AddressValue>();
  const [shown, needed] = [new Set<string>(), new Set<string>()];
  const given = { values, slots, today: typing.today };
  const budget = new Budget();
  const holds = (condition: FormulaNode | undefined, without: boolean): boolean =>
    condition ? toYesNo(evaluate(condition, given, budget)) === true : without;
  for (const key of logic.order) {
    const place = places.get(key);
    if (place?.within.every((other) => shown.has(other)) && holds(valueAt(logic.shown, key), true)) {
      shown.add(key);
      if (place.item.required || holds(valueAt(logic.required, key), false)) needed.add(key);
      const formula = valueAt(logic.formulas, key);
      if ("parts" in place.item) slots[key] = valueAt(typing.slots, key) ?? NO_ADDRESS;
      else if (formula) values[key] = evaluate(formula, given, budget);
      else values[key] = toFormulaValue(place.item, valueAt(typing.values, key));
    }
    if (budget.isUsedUp) return { values, shown, needed, stoppedAt: key };
  }
  return { values, shown, needed, stoppedAt: null };
}

interface Place {
  item: Field | Slot;
  /** Keys of the page, section and slot that it stands in. */
  within: string[];
}

function placesOf(document: FormDocument): Map<string, Place> {
  const places = new Map<string, Place>();
  let [page, section]: [string[], string[]] = [[], []];
  for (const item of itemsOf(document)) {
    const type = "parts" in item ? "slot" : item.type;
    if (type === "page" || type === "section") {
      places.set(item.key, { item, within: type === "page" ? [] : page });
      if (type === "page") [page, section] = [[item.key], []];
      else section = [item.key];
      continue;
    }
    const within = [...page, ...section];
    places.set(item.key, { item, within });
    for (const part of "parts" in item ? item.parts : []) places.set(part.key, { item: part, within: [...within, item.key] });
  }
  return places;
}

/** What was typed as formulas have it; what is not of its type is as if it were not given. */
export function toFormulaValue(field: Field, typed: Typed | undefined): Value {
  const type = field.type ?? "text";
  // As the form offers them, with commas between: several choices are one text.
  if (Array.isArray(typed)) return offered(field, typed).join(", ") || null;
  const value = typeof typed === "string" ? typed.trim() : typed;
  if (value === null || value === undefined || value === "") return null;
  if (type === "number") {
    const number = toNumber(value);
    return typeof number === "number" ? number : null;
  }
  if (type === "date") {
    const date = toDate(String(value));
    return date instanceof Day ? date : null;
  }
  return value;
}

function offered(field: Field, chosen: string[]): string[] {
  return (field.options ?? []).map((option) => option.value).filter((value) => chosen.includes(value));
}

/** What people read of a value: of what cannot be worked out, nothing. */
export function readable(value: Value | undefined, words: Words = ENGLISH): string {
  if (value === undefined || value === null || value instanceof Problem) return "";
  if (typeof value === "boolean") return words.say(value ? "yes" : "no");
  const text = toText(value);
  return typeof text === "string" ? text : "";
}

const DAY_MS = 86_400_000;
const EPOCH = 25_569;

/** The serial number of today, in UTC as the service has it. */
export const today = (): number => Math.floor(Date.now() / DAY_MS) + EPOCH;
