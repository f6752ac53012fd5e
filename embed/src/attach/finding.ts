/** Finding a field on a page, by the ways that the target names, in their order. */

import type * as api from "../api";
import { type FieldType, holdersIn, typeOf } from "./holders";
import { blockOf, labelsOf, plainLabel } from "./labels";
import { type Tree, treesIn } from "./trees";

export type PageFieldSchema = api.PageFieldSchema;
type Ways = NonNullable<PageFieldSchema["find"]>;
type Way = Ways[number];

/** What finding came to: the way that found something is the last that was tried. */
export interface Found {
  element: HTMLElement | null;
  /** How many the first way that found any has found. */
  count: number;
  /** A selector that is none. */
  fault: string;
  /** What was found instead, where nothing can be written into it: a file, a heading. */
  other: string;
}

/** Types that are meant where a target says only that a text is written. */
const USUAL = new Set<FieldType>(["text", "list", "region"]);

export function findBy(page: Tree, ways: Ways, type: FieldType = "text"): Found {
  const trees = [...treesIn(page)];
  let fault = "";
  let other = "";
  for (const way of ways) {
    try {
      const all = trees.flatMap((tree) => [...matching(tree, way)]);
      const found = narrowed(meant(all, type), way);
      if (found[0]) return { element: found[0], count: found.length, fault, other };
      other ||= unwritable(trees, way);
    } catch {
      fault = `“${way.css}” is no CSS selector.`;
    }
  }
  return { element: null, count: 0, fault, other };
}

/** Of what a way finds, what is of the type that is meant: a name can be that of a hidden input as well. */
function meant(found: HTMLElement[], type: FieldType): HTMLElement[] {
  const exact = found.filter((one) => typeOf(one) === type);
  if (exact.length && type !== "text") return exact;
  const usual = found.filter((one) => USUAL.has(typeOf(one) as FieldType));
  return usual.length ? usual : found;
}

function narrowed(found: HTMLElement[], way: Way): HTMLElement[] {
  const inBlock = way.block ? found.filter((one) => plainLabel(blockOf(one)) === plainLabel(way.block ?? "")) : found;
  if (!way.position) return inBlock;
  const at = inBlock[way.position - 1];
  return at ? [at] : [];
}

/** What a way finds into which nothing can be written; empty for nothing. */
function unwritable(trees: readonly Tree[], way: Way): string {
  const selector = way.css ?? (way.id ? `#${CSS.escape(way.id)}` : way.name ? `[name="${CSS.escape(way.name)}"]` : "");
  const found = selector ? trees.map((tree) => tree.querySelector(selector)).find(Boolean) : null;
  const type = found?.getAttribute("type");
  return found ? `<${found.localName}${type ? ` type="${type}"` : ""}>` : "";
}

function* matching(tree: Tree, way: Way): Generator<HTMLElement> {
  if (way.css) return yield* holdersIn(tree, way.css);
  for (const element of holdersIn(tree)) if (fits(element, way)) yield element;
}

function fits(element: HTMLElement, way: Way): boolean {
  if (way.name) return element.getAttribute("name") === way.name;
  if (way.id) return element.id === way.id;
  if (way.autocomplete) return (element.getAttribute("autocomplete") ?? "").toLowerCase().split(/\s+/).includes(way.autocomplete.toLowerCase());
  if (way.class_name) return element.classList.contains(way.class_name);
  if (way.label) return labelsOf(element).some((label) => plainLabel(label) === plainLabel(way.label ?? ""));
  return false;
}

/** A way in words, for whoever mends it. */
export function wayInWords(way: Way): string {
  const { block, position, ...by } = way;
  const said = Object.entries(by).flatMap(([name, value]) => (value ? `${name} “${value}”` : [])).join("");
  return `${said}${block ? ` below “${block}”` : ""}${position ? `, number ${position}` : ""}`;
}
