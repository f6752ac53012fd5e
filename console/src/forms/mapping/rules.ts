/** Rules of a mapping: what kind each is, and how one becomes another kind. */

import type { Rule, RulePart } from "../../api/schemas";
import { valueAt } from "../../../../embed/src/dictionary";

export type SourceKind = "components" | "facts" | "lines" | "formula" | "fit" | "link";

export const SOURCE_KINDS: Record<SourceKind, { title: string; says: string }> = {
  components: { title: "Parts", says: "Parts of the address, joined" },
  lines: { title: "Country's lines", says: "Lines as the country writes them" },
  fit: { title: "Fit to lines", says: "What is left, packed into lines" },
  facts: { title: "Facts", says: "What else is known of the address" },
  formula: { title: "Formula", says: "Worked out from the address" },
  link: { title: "Record", says: "A record of another form" },
};

export const IF_WRITTEN: Record<string, string> = {
  append: "put it behind what is there",
  instead: "write it instead",
  leave: "leave what is there",
};

/** Steps that leave a text in a field. */
export const WRITES: ReadonlySet<string> = new Set(["wrote", "appended", "replaced"]);

export function kindOf(rule: Rule): SourceKind {
  const kinds = Object.keys(SOURCE_KINDS) as SourceKind[];
  return kinds.find((kind) => rule[kind] !== undefined && rule[kind] !== null) ?? "components";
}

/** A rule of another kind, with what both have in common. */
export function withKind(rule: Rule, kind: SourceKind, into: string): Rule {
  const { components: _c, facts: _f, lines: _l, formula: _w, fit, link: _r, join: _j, ...kept } = rule;
  const target = rule.into ?? fit?.into[0] ?? into;
  if (kind === "fit") {
    const { into: _into, ...others } = kept;
    return { ...others, fit: { into: [target] } };
  }
  const source: Partial<Rule> = {
    components: { components: [] },
    facts: { facts: ["latitude"] },
    lines: { lines: "street" as const },
    formula: { formula: "town" },
    link: { link: { form: "", find: [], creates: false, more: [] } },
  }[kind] as Partial<Rule>;
  return { ...kept, ...source, into: target };
}

export function newRule(into: string): Rule {
  return { components: [], into, changes: [] };
}

/** A part of what a rule takes: a component, or a group that is joined by itself. */
export type Part = RulePart;

/** What a typed chip stands for: several words are a group, joined by blanks. */
export function partOf(typed: string): Part {
  const words = typed.trim().toLowerCase().replaceAll("-", "_").split(/\s+/);
  return words.length > 1 ? { components: words, changes: [] } : (words[0] ?? "");
}

export function partName(part: Part, labels: Record<string, string>): string {
  if (typeof part === "string") return valueAt(labels, part) ?? part;
  const join = part.join ?? " ";
  return part.components.map((one) => partName(one, labels)).join(join === " " ? " " : ` ${join.trim()} `);
}

export type Change = NonNullable<Rule["changes"]>[number];

export function changeName(change: Change): string {
  return typeof change === "string" ? change : (Object.keys(change)[0] ?? "");
}

export function changeSettings(change: Change): unknown {
  return typeof change === "string" ? undefined : Object.values(change)[0];
}
