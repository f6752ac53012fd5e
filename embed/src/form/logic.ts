/** What is shown and needed, and what formulas come to; core/forms/logic.py has the same rules. */

import { type AddressValue, NO_ADDRESS } from "../formula/address-value";
import { evaluate, type FormulaNode } from "../formula/evaluate";
import { Day, Problem, toDate, toNumber, toText, toYesNo, type Value } from "../formula/values";
import { type Field, type FormDocument, type Slot, type Value as Typed, itemsOf } from "./model";

export interface FormLogic {
  order: readonly string[];
  formulas: Readonly<Record<string, FormulaNode>>;
  shown: Readonly<Record<string, FormulaNode>>;
  required: Readonly<Record<string, FormulaNode>>;
}

export interface Worked {
  values: Readonly<Record<string, Value>>;
  shown: ReadonlySet<string>;
  needed: ReadonlySet<string>;
}

export interface Typing {
  values: Readonly<Record<string, Typed | undefined>>;
  slots: Readonly<Record<string, AddressValue | undefined>>;
  today: number;
}

/** Works a form out on what was typed; what is not shown counts as not given. */
export function workOut(document: FormDocument, logic: FormLogic, typing: Typing): Worked {
  const places = placesOf(document);
  const values: Record<string, Value> = {};
  const slots: Record<string, AddressValue> = {};
  const [shown, needed] = [new Set<string>(), new Set<string>()];
  const given = { values, slots, today: typing.today };
  const holds = (condition: FormulaNode | undefined, without: boolean): boolean =>
    condition ? toYesNo(evaluate(condition, given)) === true : without;
  for (const key of logic.order) {
    const place = places.get(key);
    if (!place || (place.slot && !shown.has(place.slot)) || !holds(logic.shown[key], true)) continue;
    shown.add(key);
    if (place.item.required || holds(logic.required[key], false)) needed.add(key);
    const formula = logic.formulas[key];
    if ("parts" in place.item) slots[key] = typing.slots[key] ?? NO_ADDRESS;
    else if (formula) values[key] = evaluate(formula, given);
    else values[key] = toFormulaValue(place.item.type ?? "text", typing.values[key]);
  }
  return { values, shown, needed };
}

function placesOf(document: FormDocument): Map<string, { item: Field | Slot; slot: string | null }> {
  const places = new Map<string, { item: Field | Slot; slot: string | null }>();
  for (const item of itemsOf(document)) {
    places.set(item.key, { item, slot: null });
    for (const part of "parts" in item ? item.parts : []) places.set(part.key, { item: part, slot: item.key });
  }
  return places;
}

/** What was typed as formulas have it; what is not of its type is as if it were not given. */
export function toFormulaValue(type: string, typed: Typed | undefined): Value {
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

/** What people read of a value: of what cannot be worked out, nothing. */
export function readable(value: Value | undefined): string {
  if (value === undefined || value === null || value instanceof Problem) return "";
  if (typeof value === "boolean") return value ? "yes" : "no";
  const text = toText(value);
  return typeof text === "string" ? text : "";
}

const DAY_MS = 86_400_000;
const EPOCH = 25_569;

/** The serial number of today, in UTC as the service has it. */
export const today = (): number => Math.floor(Date.now() / DAY_MS) + EPOCH;
