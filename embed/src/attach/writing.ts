/** Writing into an input so that the page's own code believes it, and reading what became of it. */

import type { PageInput, Writable } from "./finding";

type Writes = NonNullable<PageInput["writes"]>;

/** What a person does to an input, as events in their order. */
export function write(element: Writable, text: string, writes: Writes = "any"): boolean {
  send(element, "focus", "focusin");
  const isThere = element.localName === "select" ? choose(element as HTMLSelectElement, text, writes) : set(element, text);
  if (isThere) {
    const view = element.ownerDocument.defaultView ?? window;
    const input = { bubbles: true, composed: true, data: text, inputType: "insertReplacementText" };
    element.dispatchEvent(new view.InputEvent("input", input));
    element.dispatchEvent(new view.Event("change", { bubbles: true }));
  }
  send(element, "blur", "focusout");
  return isThere;
}

/** Whether what stands in an input is what was written, in whichever way the page spells it. */
export function holds(element: Writable, text: string, writes: Writes = "any"): boolean {
  if (element.localName === "select") {
    const select = element as HTMLSelectElement;
    return text === "" ? !select.value : optionFor(select, text, writes)?.index === select.selectedIndex;
  }
  return plain(element.value) === plain(text);
}

/** The native setter: frameworks watch what scripts set in any other way. */
function set(element: Writable, text: string): boolean {
  const view = element.ownerDocument.defaultView ?? window;
  const own = element.localName === "textarea" ? view.HTMLTextAreaElement : view.HTMLInputElement;
  Object.getOwnPropertyDescriptor(own.prototype, "value")?.set?.call(element, text);
  return true;
}

function choose(select: HTMLSelectElement, text: string, writes: Writes): boolean {
  const option = optionFor(select, text, writes);
  if (!option && text !== "") return false;
  const view = select.ownerDocument.defaultView ?? window;
  const index = option?.index ?? Array.from(select.options).findIndex((one) => one.value === "");
  Object.getOwnPropertyDescriptor(view.HTMLSelectElement.prototype, "selectedIndex")?.set?.call(select, index);
  return true;
}

/** The option that a text means: by value, by its text, or by a code in one of them. */
function optionFor(select: HTMLSelectElement, text: string, writes: Writes): HTMLOptionElement | undefined {
  const wanted = plain(text);
  const options = Array.from(select.options);
  const ways: ((option: HTMLOptionElement) => boolean)[] = [];
  if (writes !== "text") ways.push((option) => plain(option.value) === wanted);
  if (writes !== "value") ways.push((option) => plain(option.text) === wanted);
  if (writes === "any") {
    ways.push((option) => `${option.value} ${option.text}`.split(/[^\p{L}\p{N}]+/u).some((word) => plain(word) === wanted));
  }
  for (const way of ways) {
    const found = options.find(way);
    if (found) return found;
  }
  return undefined;
}

/** Texts of which one is the other as a mask or a country spells it. */
function plain(text: string): string {
  return text.normalize("NFC").toLowerCase().replace(/[\s\p{P}]+/gu, "");
}

function send(element: Writable, own: string, bubbling: string): void {
  const view = element.ownerDocument.defaultView ?? window;
  element.dispatchEvent(new view.FocusEvent(own));
  element.dispatchEvent(new view.FocusEvent(bubbling, { bubbles: true, composed: true }));
}
