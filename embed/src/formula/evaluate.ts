/** Working out a checked formula; the service does the same with the same tree. */
import { type AddressValue, NO_ADDRESS } from "./address-value";
import { CONVERSIONS, HOLDING_PROBLEMS, RULES } from "./functions";
import { Day, Problem, toNumber, toYesNo, type Value } from "./values";

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

export function evaluate(node: FormulaNode, given: Given): Value {
  if ("call" in node) return called(node.call, node.of, given);
  if ("field" in node) return given.values[node.field] ?? null;
  if ("value" in node) return node.value;
  throw new Error(`the address ${node.slot} is no value`);
}

function called(name: string, of: readonly FormulaNode[], given: Given): Value {
  const value = (place: number): Value => {
    const part = of[place];
    return part ? evaluate(part, given) : null;
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
  const parts = of.map((part) => ("slot" in part ? (given.slots[part.slot] ?? NO_ADDRESS) : evaluate(part, given)));
  const tolerant = HOLDING_PROBLEMS[name];
  if (tolerant) return tolerant(...parts);
  const problem = parts.find((part) => part instanceof Problem);
  if (problem) return problem as Problem;
  const rule = RULES[name];
  if (!rule) throw new Error(`no function ${name}`);
  return rule(...parts);
}
