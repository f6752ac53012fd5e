/**
 * Where the finder stands: outside of a field's label and of all that holds the two alone, whatever that is made of.
 */

import { holdersWithin } from "./labels";

const STOPS = "form, body, fieldset, section, main, article, table, tbody, thead, ol, ul, [role=group], [role=tabpanel], dialog";

/** Puts the finder at a field; it takes a row of its own in a table. */
export function seat(host: HTMLElement, at: HTMLElement, side: "before" | "after"): void {
  const outer = aloneAround(at);
  const row = outer.closest("tr");
  if (row && outer.matches("td, th, tr")) {
    side === "after" ? row.after(inRow(host, row)) : row.before(inRow(host, row));
    return;
  }
  if (side === "after") outer.after(host);
  else firstOf(outer, at).before(host);
}

/** Takes the finder away, with the row that was made for it. */
export function unseat(host: HTMLElement): void {
  const row = host.closest("tr[data-anchorline-row]");
  host.remove();
  row?.remove();
}

/** What holds a field and its label, and no other field. */
export function aloneAround(at: HTMLElement): HTMLElement {
  let outer = (at.closest("label") as HTMLElement | null) ?? at;
  for (let around = outer.parentElement; around && !around.matches(STOPS) && holdersWithin(around) <= 1; around = around.parentElement) {
    outer = around;
    if (around.localName === "tr") break;
  }
  return outer;
}

/** Its label, where that stands before it in the same part of the page. */
function firstOf(outer: HTMLElement, at: HTMLElement): HTMLElement {
  const labels = Array.from((at as HTMLInputElement).labels ?? []);
  const before = labels.find((label) => label.parentElement === outer.parentElement && label.compareDocumentPosition(outer) & Node.DOCUMENT_POSITION_FOLLOWING);
  if (before) return before;
  const term = outer.localName === "dd" && outer.previousElementSibling?.localName === "dt" ? outer.previousElementSibling : null;
  return (term as HTMLElement | null) ?? outer;
}

function inRow(host: HTMLElement, beside: HTMLTableRowElement): HTMLTableRowElement {
  const page = beside.ownerDocument;
  const row = page.createElement("tr");
  row.dataset.anchorlineRow = "";
  const cell = page.createElement("td");
  cell.colSpan = Math.max(1, Array.from(beside.cells).reduce((sum, one) => sum + one.colSpan, 0));
  cell.append(host);
  row.append(cell);
  return row;
}
