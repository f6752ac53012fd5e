/** What an input of a page or a part of a program is, as one choice: a part of the address, a line of it, or nothing of it. */

import { COMPONENTS } from "../api/vocabulary";
import type { Rule } from "./useTargets";

/** An address of a target of either kind, as far as its mapping goes. */
export interface Mapped {
  mapping?: Rule[];
}

/** Nobody but the person fills it. */
export const LEFT = "";
/** A rule that is more than one choice: it is changed in a file. */
export const MORE = "more";
const LINE = "line:";

export const CHOICES: { value: string; label: string }[] = [
  { value: LEFT, label: "Left to people" },
  { value: `${LINE}street`, label: "Number and street, as the country writes them" },
  { value: `${LINE}all`, label: "The whole address, line by line" },
  ...COMPONENTS.map((name) => ({ value: name, label: readable(name) })),
];

/** A component's name as words: `po_box` is “Po box”. */
function readable(name: string): string {
  const special: Record<string, string> = { po_box: "PO box", country_code: "Country code", region_code: "Region code" };
  return special[name] ?? `${name.charAt(0).toUpperCase()}${name.slice(1)}`.replaceAll("_", " ");
}

/** What an input is, by the rules of an address. */
export function whatItIs(address: Mapped, input: string): string {
  const own = (address.mapping ?? []).filter((rule) => rule.into === input || (rule.fit?.into ?? []).includes(input));
  const [rule] = own;
  if (!rule) return LEFT;
  if (own.length > 1 || !isPlain(rule)) return MORE;
  if (rule.lines) return `${LINE}${rule.lines}`;
  const [component] = rule.components ?? [];
  return typeof component === "string" ? component : MORE;
}

/** In words what an input gets, where that is more than one choice; and whether other inputs share it. */
export function moreOf(address: Mapped, input: string): { label: string; isShared: boolean } {
  const own = (address.mapping ?? []).filter((rule) => rule.into === input || (rule.fit?.into ?? []).includes(input));
  const said = own.map((rule) => {
    if (rule.fit) return `One of ${rule.fit.into.length} lines for what no other input takes`;
    if (rule.formula) return "Worked out by a formula";
    const names = (rule.components ?? rule.facts ?? []).map((one) => (typeof one === "string" ? readable(one) : "a group"));
    const changes = rule.changes?.length ? ", changed on the way" : "";
    return `${names.join(", ") || (rule.lines ? `Line ${rule.lines}` : "A link")}${changes}`;
  });
  return { label: said.join("; "), isShared: own.some((rule) => rule.fit) };
}

/** The target with an input that is something else now, in one of its addresses. */
export function withChoice<Document extends { addresses?: Mapped[] }>(document: Document, at: number, input: string, choice: string): Document {
  const addresses = (document.addresses ?? []).map((address, number) => {
    const others = (address.mapping ?? []).filter((rule) => rule.into !== input);
    if (number !== at) return whatItIs(address, input) === MORE || choice === LEFT ? address : { ...address, mapping: others };
    if (choice === LEFT) return { ...address, mapping: others };
    const rule = choice.startsWith(LINE)
      ? { lines: choice.slice(LINE.length) as "street" | "all", into: input }
      : { components: [choice], into: input };
    return { ...address, mapping: [...others, rule as unknown as Rule] };
  });
  return { ...document, addresses };
}

function isPlain(rule: Rule): boolean {
  const { components, lines, fit, link, formula, facts, changes } = rule;
  if (fit || link || formula || facts?.length || (changes?.length ?? 0) > 0) return false;
  if (lines) return lines === "street" || lines === "all";
  return components?.length === 1 && typeof components[0] === "string";
}
