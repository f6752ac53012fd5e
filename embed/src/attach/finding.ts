/** Finding an input on a page, by the ways that the target names, in their order. */

import type * as api from "../api";
import { type Tree, treesIn } from "./trees";

export type PageInput = api.PageInputSchema;
type Way = NonNullable<PageInput["find"]>[number];
/** What text is written into, or chosen in; a list that a page has made itself is some element of its own. */
export type Writable = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

const WRITABLE = "input, textarea, select, [role=combobox]";
/** Inputs into which no text is written. */
const NO_TEXT = new Set(["button", "checkbox", "color", "file", "hidden", "image", "password", "radio", "range", "reset", "submit"]);

/** What finding an input came to: the way that found it is the last that was tried. */
export interface Found {
  element: Writable | null;
  /** How many the first way that found any has found. */
  count: number;
  /** A selector that is none. */
  fault: string;
  /** What was found instead, where nothing can be written into it: a tick box, a heading. */
  other: string;
}

export function findInput(page: Tree, input: PageInput): Found {
  const trees = [...treesIn(page)];
  let fault = "";
  let other = "";
  for (const way of input.find ?? []) {
    try {
      const found = trees.flatMap((tree) => [...matching(tree, way)]);
      if (found[0]) return { element: found[0], count: found.length, fault, other };
      other ||= unwritable(trees, way);
    } catch {
      fault = `“${way.css}” is no CSS selector.`;
    }
  }
  return { element: null, count: 0, fault, other };
}

/** What a way finds into which no text can be written; empty for nothing. */
function unwritable(trees: readonly Tree[], way: Way): string {
  const selector = way.css ?? (way.id ? `#${CSS.escape(way.id)}` : way.name ? `[name="${CSS.escape(way.name)}"]` : "");
  const found = selector ? trees.map((tree) => tree.querySelector(selector)).find(Boolean) : null;
  const type = found?.getAttribute("type");
  return found ? `<${found.localName}${type ? ` type="${type}"` : ""}>` : "";
}

/** The inputs of one tree into which text is written. */
export function writableIn(tree: Tree): Generator<Writable> {
  return writable(tree.querySelectorAll(WRITABLE));
}

function* matching(tree: Tree, way: Way): Generator<Writable> {
  if (way.css) return yield* writable(tree.querySelectorAll(way.css));
  for (const element of writableIn(tree)) {
    if (fits(element, way)) yield element;
  }
}

function* writable(elements: Iterable<Element>): Generator<Writable> {
  for (const element of elements) {
    if (!element.matches(WRITABLE)) continue;
    if (element.localName === "input" && NO_TEXT.has((element as HTMLInputElement).type)) continue;
    yield element as Writable;
  }
}

function fits(element: Writable, way: Way): boolean {
  if (way.name) return element.name === way.name;
  if (way.id) return element.id === way.id;
  if (way.autocomplete) return (element.autocomplete ?? "").toLowerCase().split(/\s+/).includes(way.autocomplete.toLowerCase());
  if (way.class_name) return element.classList.contains(way.class_name);
  if (way.label) return labelsOf(element).some((label) => plain(label) === plain(way.label ?? ""));
  return false;
}

/** What an input is called: by its labels, or by what ARIA says of it. */
export function labelsOf(element: Writable): string[] {
  const root = element.getRootNode() as Tree;
  const named = (element.getAttribute("aria-labelledby") ?? "").split(/\s+/).filter(Boolean);
  return [
    ...Array.from(element.labels ?? [], (label) => ownText(label)),
    ...named.map((id) => root.getElementById(id)?.textContent ?? ""),
    element.getAttribute("aria-label") ?? "",
  ];
}

/** The text of a label without that of the inputs in it. */
function ownText(label: HTMLLabelElement): string {
  const copy = label.cloneNode(true) as HTMLElement;
  for (const input of Array.from(copy.querySelectorAll(WRITABLE))) input.remove();
  return copy.textContent ?? "";
}

/** A label as it is compared: without signs at its end, in one case. */
function plain(text: string): string {
  return text.replace(/[\s:*]+$/u, "").replace(/\s+/gu, " ").trim().toLowerCase();
}
