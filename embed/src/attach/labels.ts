/**
 * What people read beside a field: its label, what ARIA says, or the text that stands before it, in the cell
 * beside it or above it; and the heading of the part of the page that it stands in.
 */

import { HOLDERS, radiosOf, typeOf } from "./holders";
import type { Tree } from "./trees";

const LONGEST_BESIDE = 80;
const LEVELS = 4;
const HEADINGS = "h1, h2, h3, h4, h5, h6, legend, caption, [role=heading]";

/** All that a field is called, the surest first. */
export function labelsOf(element: HTMLElement): string[] {
  const whole = typeOf(element) === "radio" ? groupOf(element) : element;
  return [...(whole === element ? ownLabels(element) : []), ...ofAria(whole), ...(whole === element ? [] : legendOf(whole)), besideOf(whole)].filter((text) => text.trim());
}

/** What an option of a group of radio buttons is called. */
export function labelOfRadio(radio: HTMLElement): string {
  const [own] = [...ownLabels(radio), ...ofAria(radio)].filter((text) => text.trim());
  return own ?? textAfter(radio);
}

/** The heading of the part of the page that a field stands in; empty for none. */
export function blockOf(element: HTMLElement): string {
  const isAlone = (around: Element): boolean => holdersWithin(around) <= 1;
  for (let around = element.parentElement; around && around.localName !== "body"; around = around.parentElement) {
    const said = around.matches("fieldset, section, form, [role=group], [role=region]") && !isAlone(around) ? [...legendOf(around), ...ofAria(around)].find((text) => text.trim()) : undefined;
    if (said) return said;
    const caption = around.localName === "table" ? around.querySelector("caption")?.textContent : null;
    if (caption?.trim()) return caption;
    for (let before = around.previousElementSibling; before; before = before.previousElementSibling) {
      const heading = before.matches(HEADINGS) ? before : Array.from(before.querySelectorAll(HEADINGS)).at(-1);
      if (heading?.textContent?.trim() && !holdersWithin(heading)) return heading.textContent;
      if (around.localName === "tr" && isHeadingRow(before)) return before.textContent ?? "";
      if (holdersWithin(before) && around.matches("section, fieldset, table")) break;
    }
  }
  return "";
}

/** How many fields stand in an element, itself left out. */
export function holdersWithin(around: Element): number {
  const seen = new Set<Element>();
  for (const one of Array.from(around.querySelectorAll<HTMLElement>(HOLDERS))) {
    const type = typeOf(one);
    if (!type || type === "hidden" || one.closest("[data-anchorline]")) continue;
    seen.add(type === "radio" && one.localName === "input" ? (radiosOf(one as HTMLInputElement)[0] ?? one) : one);
  }
  return seen.size;
}

/** A label as it is compared: without signs at its end, in one case. */
export function plainLabel(text: string): string {
  return text.replace(/[\s:*]+$/u, "").replace(/\s+/gu, " ").trim().toLowerCase();
}

function ownLabels(element: HTMLElement): string[] {
  return Array.from((element as HTMLInputElement).labels ?? [], (label) => ownText(label));
}

function ofAria(element: Element): string[] {
  const root = element.getRootNode() as Tree;
  const named = (element.getAttribute("aria-labelledby") ?? "").split(/\s+/).filter(Boolean);
  const together = named.map((id) => ownText(root.getElementById(id))).join(" ");
  return [together, element.getAttribute("aria-label") ?? ""];
}

function legendOf(around: Element): string[] {
  const legend = around.localName === "fieldset" ? around.querySelector(":scope > legend") : null;
  return legend ? [ownText(legend)] : [];
}

/** What holds all radio buttons of a group, and nothing else. */
function groupOf(radio: HTMLElement): HTMLElement {
  if (radio.localName !== "input") return radio;
  const all = radiosOf(radio as HTMLInputElement);
  let around: HTMLElement = radio;
  while (around.parentElement && !all.every((one) => around.contains(one))) around = around.parentElement;
  const fieldset = around.closest("fieldset");
  return fieldset && holdersWithin(fieldset) === 1 ? fieldset : around;
}

/** The text that stands before a field: in its own part of the page, in the cell beside it, or above it. */
function besideOf(element: HTMLElement): string {
  let around: HTMLElement | null = element;
  for (let level = 0; around && level < LEVELS; level++, around = around.parentElement) {
    const before = textBefore(around);
    if (before) return before;
    if (around.matches("td, th")) return besideCell(around as HTMLTableCellElement);
    if (around.localName === "dd") break;
    const parent: HTMLElement | null = around.parentElement;
    if (!parent || parent.matches("form, body, tr, table, fieldset") || holdersWithin(parent) > 1) break;
  }
  return "";
}

/** The nearest text before an element among its siblings, up to another field. */
function textBefore(element: Element): string {
  for (let node = element.previousSibling; node; node = node.previousSibling) {
    if (node instanceof Element || node.nodeType === Node.ELEMENT_NODE) {
      const one = node as HTMLElement;
      if (one.matches(HOLDERS) || holdersWithin(one) || one.matches(HEADINGS)) return "";
      if (one.matches("script, style, template, [data-anchorline]")) continue;
    }
    const text = (node.textContent ?? "").replace(/\s+/gu, " ").trim();
    if (text && node.nodeType !== Node.COMMENT_NODE) return text.length <= LONGEST_BESIDE ? text : "";
  }
  return "";
}

function textAfter(element: Element): string {
  for (let node = element.nextSibling; node; node = node.nextSibling) {
    const text = (node.textContent ?? "").replace(/\s+/gu, " ").trim();
    if (text) return text.slice(0, LONGEST_BESIDE);
  }
  return "";
}

function besideCell(cell: HTMLTableCellElement): string {
  for (let before = cell.previousElementSibling; before; before = before.previousElementSibling) {
    if (holdersWithin(before)) break;
    const text = before.textContent?.trim();
    if (text) return text.length <= LONGEST_BESIDE ? text : "";
  }
  const column = columnOf(cell);
  for (let row = rowBefore(cell.closest("tr")); row; row = rowBefore(row)) {
    const above = Array.from(row.cells).find((one) => columnOf(one) <= column && column < columnOf(one) + one.colSpan);
    if (!above || holdersWithin(above)) continue;
    const text = above.textContent?.trim();
    if (text && row.cells.length > 1) return text;
  }
  return "";
}

function columnOf(cell: HTMLTableCellElement): number {
  let column = 0;
  for (let before = cell.previousElementSibling as HTMLTableCellElement | null; before; before = before.previousElementSibling as HTMLTableCellElement | null) column += before.colSpan;
  return column;
}

function rowBefore(row: HTMLTableRowElement | null | undefined): HTMLTableRowElement | null {
  const rows = Array.from(row?.closest("table")?.rows ?? []);
  return (row && rows[rows.indexOf(row) - 1]) || null;
}

/** A row of a table with a text across it, and no field. */
function isHeadingRow(row: Element): boolean {
  const cells = row.localName === "tr" ? Array.from((row as HTMLTableRowElement).cells) : [];
  return cells.length === 1 && !holdersWithin(row) && Boolean(row.textContent?.trim());
}

/** The text of an element without that of the fields in it. */
function ownText(element: Element | null): string {
  if (!element) return "";
  const copy = element.cloneNode(true) as HTMLElement;
  for (const one of Array.from(copy.querySelectorAll(HOLDERS))) one.remove();
  return (copy.textContent ?? "").replace(/\s+/gu, " ").trim();
}
