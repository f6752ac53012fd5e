/**
 * What is wrong with how a page has set an element up, said to whoever builds the page.
 *
 * It goes to the developer console, once each; people who fill the form read none of it.
 */

import type { ServiceError } from "./service";

/** Attributes that any element may have. */
const GLOBAL = new Set([
  "accesskey", "autofocus", "class", "contenteditable", "dir", "draggable", "enterkeyhint",
  "exportparts", "hidden", "id", "inert", "inputmode", "is", "itemid", "itemprop", "itemref",
  "itemscope", "itemtype", "lang", "nonce", "part", "popover", "role", "slot", "spellcheck",
  "style", "tabindex", "title", "translate",
]);
/** Statuses that trying again does not mend: the key, the page's origin, a name. */
const SET_UP_WRONG = new Set([400, 401, 403, 404, 422]);

const said = new Set<string>();

/** Says something to whoever builds the page, once. */
export function warnOnce(element: Element, text: string): void {
  const message = `<${element.localName}>: ${text}`;
  if (said.has(message)) return;
  said.add(message);
  console.warn(message);
}

/** Names attributes that an element does not know, with the nearest that it does. */
export function checkAttributes(element: Element, known: readonly string[]): void {
  for (const { name } of Array.from(element.attributes)) {
    const fine = known.includes(name) || GLOBAL.has(name) || /^(data-|aria-|on|_ng|v-)/.test(name);
    if (fine) continue;
    const near = nearest(name, known);
    const hint = near ? ` Did you mean “${near}”?` : ` It takes: ${known.join(", ")}.`;
    warnOnce(element, `there is no attribute “${name}”.${hint}`);
  }
}

/** Whether an error is of how the page is set up; says it then. */
export function isSetupError(element: Element, error: ServiceError): boolean {
  if (!SET_UP_WRONG.has(error.status)) return false;
  const places = error.places.map((place) => `${place.pointer}: ${place.detail}`);
  warnOnce(element, [error.message, ...places].join(" "));
  return true;
}

/** The known name with the fewest edits from a name, at most two of them. */
export function nearest(name: string, known: readonly string[]): string | null {
  const by = known.map((one) => [edits(name, one), one] as const).sort((a, b) => a[0] - b[0]);
  const best = by[0];
  return best && best[0] <= 2 ? best[1] : null;
}

/** Levenshtein's distance. */
export function edits(one: string, other: string): number {
  let row = Array.from({ length: other.length + 1 }, (_, at) => at);
  for (let i = 1; i <= one.length; i++) {
    const next = [i];
    for (let j = 1; j <= other.length; j++) {
      const swap = (row[j - 1] ?? 0) + (one[i - 1] === other[j - 1] ? 0 : 1);
      next.push(Math.min(swap, (row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1));
    }
    row = next;
  }
  return row[other.length] ?? 0;
}
