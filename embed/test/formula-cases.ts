import { type AddressValue } from "../src/formula/address-value";
import { evaluate, type FormulaNode } from "../src/formula/evaluate";
import { Day, Problem, type Value } from "../src/formula/values";

type Data = number | string | boolean | null | { date: number } | { problem: string };

export interface Case {
  formula: string;
  tree: FormulaNode;
  values: Record<string, Data>;
  value: Data;
}
export interface Cases {
  today: number;
  slots: Record<string, AddressValue>;
  cases: Case[];
}

const toValue = (data: Data): Value =>
  data !== null && typeof data === "object" ? ("date" in data ? new Day(data.date) : new Problem(data.problem)) : data;

export const toData = (value: Value): Data => {
  if (value instanceof Day) return { date: value.serial };
  return value instanceof Problem ? { problem: value.code } : value;
};

/** What a case comes to here. */
export function comesTo(given: Cases, one: Case): Data {
  const values = Object.fromEntries(Object.entries(one.values).map(([key, data]) => [key, toValue(data)]));
  return toData(evaluate(one.tree, { values, slots: given.slots, today: given.today }));
}
