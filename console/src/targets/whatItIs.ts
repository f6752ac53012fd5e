/** What an input of a page or a part of a program is, as one choice: a part of the address, a line of it, or nothing of it. */

import { COMPONENTS } from "../api/vocabulary";
import type { Rule } from "./useTargets";
import { valueAt } from "../../../embed/src/dictionary";

/** An address of a target of either kind, as far as its mapping goes. */
export interface Mapped {
  mapping?: Rule[];
}

/** Nobody but the person fills it. */
export const LEFT = "";
/** A rule that is more than one choice: it is changed in a file. */
export const MORE = "more";
const LINE = "line:";
/** The mapping's change that makes capitals. */
const CAPITALS = "upper";

export const CHOICES: { value: string; label: string }[] = [
  { value: LEFT, label: "Left to people" },
  { value: `${LINE}street`, label: "Number and street, as the country writes them" },
  { value: `${LINE}all`, label: "The whole address, line by line" },
  ...COMPONENTS.map((name) => ({ value: name, label: readable(name) })),
];

/** A component's name as words: `po_box` is “Po box”. */
function readable(name: string): string {
  const special: Record<string, string> = { po_box: "PO box", country_code: "Country code", region_code: "Region code" };
  return valueAt(special, name) ?? `${name.charAt(0).toUpperCase()}${name.slice(1)}`.replaceAll("_", " ");
}

/** What an input is, by the rules of an address. */
export function whatItIs(address: Mapped, input: string): string {
  const own = (address.mapping ?? []).filter((rule) => writes(rule, input));
  const [rule] = own;
  if (!rule) return LEFT;
  if (own.length > 1 || !isPlain(rule)) return MORE;
  if (rule.lines) return `${LINE}${rule.lines}`;
  const [component] = rule.components ?? [];
  return typeof component === "string" ? component : MORE;
}

/** In words what an input gets, where that is more than one choice; and whether other inputs share it. */
export function moreOf(address: Mapped, input: string): { label: string; isShared: boolean } {
  const own = (address.mapping ?? []).filter((rule) => writes(rule, input));
  const said = own.map((rule) => {
    if (rule.fit) return `One of ${rule.fit.into.length} lines for what no other field takes`;
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
    const takes = choice.startsWith(LINE) ? { lines: choice.slice(LINE.length) as "street" | "all" } : { components: [choice] };
    const capitals = inCapitals(address, input) ? { changes: [CAPITALS] } : {};
    return { ...address, mapping: [...others, { ...takes, into: input, ...capitals } as unknown as Rule] };
  });
  return { ...document, addresses };
}

const writes = (rule: Rule, part: string): boolean => rule.into === part || (rule.fit?.into ?? []).includes(part);

/** Whether a part is written in capitals: all that writes it makes them. */
export function inCapitals(address: Mapped, part: string): boolean {
  const own = (address.mapping ?? []).filter((rule) => writes(rule, part));
  return own.length > 0 && own.every((rule) => (rule.changes ?? []).includes(CAPITALS));
}

/** The target with a part in capitals, or as the mapping makes it; lines that share a text share this as well. */
export function withCapitals<Document extends { addresses?: Mapped[] }>(document: Document, part: string, capitals: boolean): Document {
  const change = (rule: Rule): Rule => {
    const others = (rule.changes ?? []).filter((one) => one !== CAPITALS);
    return { ...rule, changes: capitals ? [...others, CAPITALS] : others };
  };
  const addresses = (document.addresses ?? []).map((address) => ({ ...address, mapping: (address.mapping ?? []).map((rule) => (writes(rule, part) ? change(rule) : rule)) }));
  return { ...document, addresses };
}

function isPlain(rule: Rule): boolean {
  const { components, lines, fit, link, formula, facts } = rule;
  const isChanged = (rule.changes ?? []).some((change) => change !== CAPITALS);
  if (fit || link || formula || facts?.length || isChanged) return false;
  if (lines) return lines === "street" || lines === "all";
  return components?.length === 1 && typeof components[0] === "string";
}
