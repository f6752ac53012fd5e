/** How a form is laid out: pages with groups of items, and the steps in which it is filled. */

import { type Field, type FormDocument, type Slot, itemsOf } from "./model";

export type Item = Field | Slot;

/** What a section, or a page before its first section, holds. */
export interface Group {
  marker: Field | null;
  items: Item[];
}

export interface Page {
  marker: Field | null;
  groups: Group[];
}

/** The pages of a form; one without a marker where it begins without one. */
export function shapeOf(document: FormDocument): Page[] {
  const pages: Page[] = [];
  let page: Page | null = null;
  for (const item of itemsOf(document)) {
    const type = "parts" in item ? "slot" : item.type;
    if (type === "page" || !page) {
      page = { marker: type === "page" ? (item as Field) : null, groups: [{ marker: null, items: [] }] };
      pages.push(page);
      if (type === "page") continue;
    }
    if (type === "section") page.groups.push({ marker: item as Field, items: [] });
    else page.groups.at(-1)?.items.push(item);
  }
  return pages;
}

/** Whether an item is a question: something that people fill. */
export function isQuestion(item: Item): boolean {
  return "parts" in item || !["heading", "note", "formula", "hidden"].includes(item.type ?? "text");
}

/** Keys of the items that are filled together, step by step. */
export function stepsOf(pages: readonly Page[], style: string): string[][] {
  const ofPages = pages.map((page) => page.groups.flatMap((group) => group.items));
  if (style === "pages") return ofPages.map((items) => items.map((item) => item.key));
  if (style !== "questions") return [ofPages.flat().map((item) => item.key)];
  const steps: string[][] = [];
  let open: string[] = [];
  for (const item of ofPages.flat()) {
    open.push(item.key);
    if (isQuestion(item)) {
      steps.push(open);
      open = [];
    }
  }
  // What is said after the last question is read with it.
  if (open.length) steps.push([...(steps.pop() ?? []), ...open]);
  return steps;
}
