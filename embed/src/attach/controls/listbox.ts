/**
 * Choosing in a list that a page has made itself, by the WAI-ARIA combobox pattern: it is opened, its
 * options are gone through by the arrow keys, as `aria-activedescendant` names them, and the one that
 * is meant is taken with Enter. A list that shows options of its own to the pointer only is clicked.
 */

import { type Texts, fitting } from "../options";
import type { Tree } from "../trees";

/** How long a page may take to answer a key, and how often it is looked. */
const ANSWERS_MS = 400;
const LOOKS_MS = 15;
const MOST_OPTIONS = 600;
/** How far above its box what a list shows may stand. */
const LEVELS = 2;
let others: Promise<unknown> = Promise.resolve();

/** What a list shows as chosen: its own text, or what stands beside it; a placeholder is none. */
export function shownIn(box: HTMLElement): string {
  const own = (box as HTMLInputElement).value ?? textOf(box);
  if (own) return own;
  let around: HTMLElement = box;
  for (let level = 0; level < LEVELS && around.parentElement && !around.parentElement.closest("label"); level++) {
    around = around.parentElement;
    const text = textOf(around);
    if (text) return text;
  }
  return "";
}

/**
 * Chooses what a text means; false where no option is that.
 *
 * Args:
 *   isOver: somebody else chooses now.
 */
export function chooseIn(box: HTMLElement, text: string, writes: string | undefined, isOver: AbortSignal): Promise<boolean> {
  // A list that opens closes another: one after the other.
  const chosen = others.then(() => (text === "" ? empty(box) : choose(box, text, writes, isOver)));
  others = chosen.catch(() => undefined);
  return chosen;
}

async function choose(box: HTMLElement, text: string, writes: string | undefined, isOver: AbortSignal): Promise<boolean> {
  await open(box);
  const seen = new Set<string>();
  const options: { element: Element; texts: Texts }[] = [];
  for (let step = 0; step < MOST_OPTIONS && !isOver.aborted; step++) {
    const active = activeIn(box);
    if (!active || seen.has(active.id)) break;
    seen.add(active.id);
    options.push({ element: active, texts: textsOf(active) });
    if (fitting(options.slice(-1), text, writes, "exactly")) break;
    press(box, "ArrowDown");
    await until(() => activeIn(box)?.id !== active.id);
  }
  const meant = fitting(options, text, writes);
  if (meant && !isOver.aborted) {
    for (let back = 0; back < options.length && activeIn(box)?.id !== meant.element.id; back++) {
      const { id } = activeIn(box) ?? {};
      press(box, "ArrowUp");
      await until(() => activeIn(box)?.id !== id);
    }
    press(box, "Enter");
    await until(() => box.getAttribute("aria-expanded") !== "true");
    return true;
  }
  const pointed = fitting(listed(box), text, writes);
  if (pointed && !isOver.aborted) click(pointed.element);
  else press(box, "Escape");
  return Boolean(pointed);
}

/** Takes away what is chosen: by an option that is empty, or by the one button that stands beside it. */
async function empty(box: HTMLElement): Promise<boolean> {
  if (!shownIn(box)) return true;
  let around: HTMLElement | null = box.parentElement;
  for (let level = 0; level <= LEVELS && around; level++, around = around.parentElement) {
    const buttons = Array.from(around.querySelectorAll("button")).filter((one) => one !== box);
    if (buttons.length > 1) break;
    if (!buttons[0]) continue;
    click(buttons[0]);
    if (await until(() => !shownIn(box))) return true;
  }
  return false;
}

async function open(box: HTMLElement): Promise<void> {
  const isOpen = (): boolean => box.getAttribute("aria-expanded") === "true";
  if (!isOpen()) press(box, "ArrowDown");
  if (!(await until(isOpen))) {
    click(box);
    await until(isOpen);
  }
  await until(() => activeIn(box) !== null || listed(box).length > 0);
  if (!activeIn(box)) {
    press(box, "ArrowDown");
    await until(() => activeIn(box) !== null);
  }
}

function activeIn(box: HTMLElement): Element | null {
  const id = box.getAttribute("aria-activedescendant");
  return id ? (box.getRootNode() as Tree).getElementById(id) : null;
}

/** The options that a list shows, wherever on the page it stands. */
function listed(box: HTMLElement): { element: Element; texts: Texts }[] {
  const id = box.getAttribute("aria-controls") ?? box.getAttribute("aria-owns") ?? "";
  const list = id ? (box.getRootNode() as Tree).getElementById(id) : null;
  const seen = Array.from(list?.querySelectorAll("[role=option]") ?? []).filter((one) => one.getBoundingClientRect().height > 0);
  return seen.map((element) => ({ element, texts: textsOf(element) }));
}

function textsOf(option: Element): Texts {
  const text = option.textContent?.trim() ?? "";
  const label = option.getAttribute("aria-label") ?? option.getAttribute("title") ?? "";
  return { value: option.getAttribute("data-value") ?? (label ? text : ""), text: label || text };
}

function textOf(element: HTMLElement): string {
  const copy = element.cloneNode(true) as HTMLElement;
  for (const one of Array.from(copy.querySelectorAll("[role=listbox], [class*=placeholder i], button, svg"))) one.remove();
  return copy.textContent?.trim() ?? "";
}

function press(box: HTMLElement, key: string): void {
  const view = box.ownerDocument.defaultView ?? window;
  const codes: Record<string, number> = { ArrowDown: 40, ArrowUp: 38, Enter: 13, Escape: 27 };
  const given = { key, code: key, keyCode: codes[key] ?? 0, bubbles: true, composed: true, cancelable: true };
  box.dispatchEvent(new view.KeyboardEvent("keydown", given));
  box.dispatchEvent(new view.KeyboardEvent("keyup", given));
}

function click(element: Element): void {
  const view = element.ownerDocument.defaultView ?? window;
  for (const type of ["mousedown", "mouseup", "click"]) {
    element.dispatchEvent(new view.MouseEvent(type, { bubbles: true, composed: true, cancelable: true }));
  }
}

/** Waits until something is true; whether it came to be. */
async function until(isTrue: () => boolean): Promise<boolean> {
  for (let waited = 0; !isTrue(); waited += LOOKS_MS) {
    if (waited >= ANSWERS_MS) return false;
    await new Promise((resolve) => setTimeout(resolve, LOOKS_MS));
  }
  return true;
}
