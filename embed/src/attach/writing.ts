/** Writing into an input so that the page's own code believes it, and reading what became of it. */

import { chooseIn, isCombobox, shownIn } from "./combobox";
import type { PageInput, Writable } from "./finding";
import { fitting, plain } from "./options";

type Writes = PageInput["writes"];

/**
 * What a person does to an input, as events in their order; whether it has what was meant.
 *
 * Args:
 *   isOver: the person goes on there by themselves.
 */
export async function write(element: Writable, text: string, writes: Writes, isOver: AbortSignal): Promise<boolean> {
  send(element, "focus", "focusin");
  let isThere = true;
  if (isCombobox(element)) isThere = await chooseIn(element, text, writes, isOver);
  else if (element.localName === "select") isThere = choose(element as HTMLSelectElement, text, writes);
  else set(element, text);
  if (isThere && !isCombobox(element)) {
    const view = element.ownerDocument.defaultView ?? window;
    const input = { bubbles: true, composed: true, data: text, inputType: "insertReplacementText" };
    element.dispatchEvent(new view.InputEvent("input", input));
    element.dispatchEvent(new view.Event("change", { bubbles: true }));
  }
  send(element, "blur", "focusout");
  return isThere;
}

/** What stands in an input. */
export function read(element: Writable): string {
  return isCombobox(element) ? shownIn(element) : element.value;
}

/** Whether what stands in an input is what was written, in whichever way the page spells it. */
export function holds(element: Writable, text: string, writes: Writes): boolean {
  if (element.localName === "select") {
    const select = element as HTMLSelectElement;
    return text === "" ? !select.value : optionFor(select, text, writes)?.index === select.selectedIndex;
  }
  if (isCombobox(element) && text) {
    const shown = shownIn(element);
    return fitting([{ texts: { value: shown, text: shown } }], text, writes) !== undefined;
  }
  return plain(read(element)) === plain(text);
}

/** The native setter: frameworks watch what scripts set in any other way. */
function set(element: Writable, text: string): void {
  const view = element.ownerDocument.defaultView ?? window;
  const own = element.localName === "textarea" ? view.HTMLTextAreaElement : view.HTMLInputElement;
  Object.getOwnPropertyDescriptor(own.prototype, "value")?.set?.call(element, text);
}

function choose(select: HTMLSelectElement, text: string, writes: Writes): boolean {
  const option = optionFor(select, text, writes);
  if (!option && text !== "") return false;
  const view = select.ownerDocument.defaultView ?? window;
  const index = option?.index ?? Array.from(select.options).findIndex((one) => one.value === "");
  Object.getOwnPropertyDescriptor(view.HTMLSelectElement.prototype, "selectedIndex")?.set?.call(select, index);
  return true;
}

function optionFor(select: HTMLSelectElement, text: string, writes: Writes): HTMLOptionElement | undefined {
  const options = Array.from(select.options, (option) => ({ option, texts: { value: option.value, text: option.text } }));
  return fitting(options, text, writes)?.option;
}

function send(element: Writable, own: string, bubbling: string): void {
  const view = element.ownerDocument.defaultView ?? window;
  element.dispatchEvent(new view.FocusEvent(own));
  element.dispatchEvent(new view.FocusEvent(bubbling, { bubbles: true, composed: true }));
}
