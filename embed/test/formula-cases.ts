import { type AddressValue } from "../src/formula/address-value";
import { Budget } from "../src/formula/budget";
import { evaluate, type FormulaNode } from "../src/formula/evaluate";
import { Day, Problem, type Value } from "../src/formula/values";

type Data = number | string | boolean | null | { date: number } | { problem: string } | { number: string };
const NO_JSON: Record<string, number> = { nan: NaN, inf: Infinity, "-inf": -Infinity };

export interface Case {
  formula: string;
  tree: FormulaNode;
  values: Record<string, Data>;
  value: Data;
  /** Steps that it may take, and what is left of them. */
  steps?: number;
  left?: number;
}
export interface Cases {
  today: number;
  slots: Record<string, AddressValue>;
  cases: Case[];
}

function toValue(data: Data): Value {
  if (data === null || typeof data !== "object") return data;
  if ("number" in data) return NO_JSON[data.number] ?? null;
  return "date" in data ? new Day(data.date) : new Problem(data.problem);
}

export const toData = (value: Value): Data => {
  if (value instanceof Day) return { date: value.serial };
  return value instanceof Problem ? { problem: value.code } : value;
};

/** What a case comes to here, and how many steps are left of those that it may take. */
export function worked(given: Cases, one: Case): { value: Data; left: number } {
  const values = Object.fromEntries(Object.entries(one.values).map(([key, data]) => [key, toValue(data)]));
  const budget = new Budget(one.steps);
  const value = toData(evaluate(one.tree, { values, slots: given.slots, today: given.today }, budget));
  return { value, left: budget.left };
}

export const comesTo = (given: Cases, one: Case): Data => worked(given, one).value;
