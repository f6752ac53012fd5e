/** Fields that a page splits over several inputs: short ones, side by side, with one label for all. */

import { typeOf } from "./holders";

const MOST = 4;
const SHORT = 6;

/** The elements in their order, those of one field together. */
export function piecesOf(elements: readonly HTMLElement[]): HTMLElement[][] {
  const groups: HTMLElement[][] = [];
  for (const element of elements) {
    const group = groups.at(-1);
    if (group && goesOn(group, element)) group.push(element);
    else groups.push([element]);
  }
  return groups.flatMap((group) => (group.length === 1 || group.some((one) => longest(one) > SHORT) ? group.map((one) => [one]) : [group]));
}

function goesOn(group: HTMLElement[], element: HTMLElement): boolean {
  const [first] = group;
  const before = group.at(-1);
  if (!first || !before || group.length >= MOST || !isShort(first) || !isShort(element)) return false;
  return before.parentElement === element.parentElement && !isNamed(element) && !textBetween(before, element);
}

const isShort = (element: HTMLElement): boolean => element.localName === "input" && typeOf(element) === "text" && longest(element) <= SHORT;

function longest(element: HTMLElement): number {
  const { maxLength } = element as HTMLInputElement;
  return maxLength > 0 ? maxLength : Infinity;
}

/** Whether a label of its own says what it is: `second part` and the like are none. */
function isNamed(element: HTMLElement): boolean {
  const labels = Array.from((element as HTMLInputElement).labels ?? []).filter((label) => !label.contains(element) || label.querySelectorAll("input").length === 1);
  return labels.length > 0;
}

/** Whether words stand between two elements; signs such as a hyphen are none. */
function textBetween(before: Element, after: Element): boolean {
  for (let node = before.nextSibling; node && node !== after; node = node.nextSibling) {
    if (/\p{L}/u.test(node.textContent ?? "")) return true;
  }
  return false;
}
