/** Working out a checked formula; the service does the same with the same tree. */
import { valueAt } from "../dictionary";
import { type AddressValue, NO_ADDRESS } from "./address-value";
import { Budget, UsedUp } from "./budget";
import { CONVERSIONS, HOLDING_PROBLEMS, RULES } from "./functions";
import { Day, Problem, toNumber, toYesNo, type Value, withinLimits } from "./values";

export type FormulaNode =
  | { value: number | string | boolean | null }
  | { field: string }
  | { slot: string }
  | { call: string; of: readonly FormulaNode[] };

export interface Given {
  values: Readonly<Record<string, Value>>;
  slots: Readonly<Record<string, AddressValue>>;
  /** Serial number of the day. */
  today: number;
}

/**
 * What a formula comes to. The budget is that of the form which it belongs to; once it is used up, every formula comes to
 * the problem that says so.
 */
export function evaluate(node: FormulaNode, given: Given, budget = new Budget()): Value {
  if (budget.isUsedUp) return new Problem("too-many-steps");
  try {
    return valueOf(node, given, budget);
  } catch (error) {
    if (error instanceof UsedUp) return new Problem("too-many-steps");
    throw error;
  }
}

function valueOf(node: FormulaNode, given: Given, budget: Budget): Value {
  const found = withinLimits(readOrWorkedOut(node, given, budget));
  budget.spend(found);
  return found;
}

function readOrWorkedOut(node: FormulaNode, given: Given, budget: Budget): Value {
  if ("call" in node) return called(node.call, node.of, given, budget);
  if ("field" in node) return valueAt(given.values, node.field) ?? null;
  if ("value" in node) return node.value;
  throw new Error(`the address ${node.slot} is no value`);
}

function called(name: string, of: readonly FormulaNode[], given: Given, budget: Budget): Value {
  const value = (place: number): Value => {
    const part = of[place];
    return part ? valueOf(part, given, budget) : null;
  };
  const convert = CONVERSIONS[name];
  if (convert) return convert(value(0));
  if (name === "TODAY") return new Day(given.today);
  if (name === "IF") {
    const holds = toYesNo(value(0));
    return holds instanceof Problem ? holds : value(holds ? 1 : 2);
  }
  if (name === "IFERROR") {
    const found = value(0);
    return found instanceof Problem ? value(1) : found;
  }
  if (name === "CHOOSE") {
    const which = toNumber(value(0));
    if (which instanceof Problem) return which;
    const place = Math.floor(which);
    return place >= 1 && place < of.length ? value(place) : new Problem("out-of-range");
  }
  const parts = of.map((part) => ("slot" in part ? addressOf(part.slot, given, budget) : valueOf(part, given, budget)));
  const tolerant = HOLDING_PROBLEMS[name];
  if (tolerant) return tolerant(...parts);
  const problem = parts.find((part) => part instanceof Problem);
  if (problem) return problem as Problem;
  const rule = RULES[name];
  if (!rule) throw new Error(`no function ${name}`);
  return rule(...parts);
}

function addressOf(slot: string, given: Given, budget: Budget): AddressValue {
  budget.spend(null);
  return valueAt(given.slots, slot) ?? NO_ADDRESS;
}
