/** Elements of a page that hold something of an address, and of which type each is. */

import type * as api from "../api";
import type { Tree } from "./trees";

export type FieldType = NonNullable<api.PageFieldSchema["type"]>;

export const HOLDERS =
  "input, textarea, select, [role=combobox], [role=radiogroup], [role=switch], [role=checkbox], [contenteditable=''], [contenteditable=true], [contenteditable=plaintext-only]";
/** Inputs that hold nothing of an address. */
const NEVER = new Set(["button", "color", "date", "datetime-local", "file", "image", "month", "password", "range", "reset", "submit", "time", "week"]);
const OF_ROLES: Record<string, FieldType> = { combobox: "list", radiogroup: "radio", switch: "switch", checkbox: "switch" };
const OF_INPUTS: Record<string, FieldType> = { radio: "radio", checkbox: "switch", hidden: "hidden" };

/** The type of an element; null where it holds nothing of an address. */
export function typeOf(element: Element): FieldType | null {
  if (element.localName === "input") {
    const { type } = element as HTMLInputElement;
    if (element.getAttribute("role") === "combobox") return "list";
    return NEVER.has(type) ? null : (OF_INPUTS[type] ?? "text");
  }
  if (element.localName === "textarea") return "text";
  if (element.localName === "select") return "list";
  const role = element.getAttribute("role") ?? "";
  if (OF_ROLES[role]) return OF_ROLES[role];
  return element.matches("[contenteditable]") && !element.parentElement?.closest("[contenteditable=''], [contenteditable=true]") ? "region" : null;
}

/** The elements of a tree that hold something; of radio buttons of one name the first. */
export function* holdersIn(tree: Tree | Element, selector = HOLDERS): Generator<HTMLElement> {
  for (const element of Array.from(tree.querySelectorAll<HTMLElement>(selector))) {
    const type = typeOf(element);
    if (!type || element.closest("[data-anchorline]")) continue;
    if (type === "radio" && element.localName === "input" && radiosOf(element as HTMLInputElement)[0] !== element) continue;
    yield element;
  }
}

/** The radio buttons that belong together with one. */
export function radiosOf(radio: HTMLInputElement): HTMLInputElement[] {
  const root = radio.getRootNode() as Tree;
  const all = Array.from(root.querySelectorAll<HTMLInputElement>("input[type=radio]"));
  return radio.name ? all.filter((one) => one.name === radio.name && one.form === radio.form) : [radio];
}

/** Whether an element, or one that it stands in, is not shown. */
export const isShown = (element: Element): boolean => element.getClientRects().length > 0;
