/** Events as a person's acts bring them, so that the page's own code follows. */

export function focused(element: HTMLElement): void {
  send(element, "focus", "focusin");
}

export function left(element: HTMLElement): void {
  send(element, "blur", "focusout");
}

/** Something else stands in an element now. */
export function changed(element: HTMLElement, text: string): void {
  const view = element.ownerDocument.defaultView ?? window;
  const input = { bubbles: true, composed: true, data: text, inputType: "insertReplacementText" };
  element.dispatchEvent(new view.InputEvent("input", input));
  element.dispatchEvent(new view.Event("change", { bubbles: true }));
}

/** The browser's own setter: frameworks watch what scripts set in any other way. */
export function setNatively(element: HTMLElement, property: string, value: unknown): void {
  let proto: object | null = Object.getPrototypeOf(element) as object | null;
  while (proto && !Object.getOwnPropertyDescriptor(proto, property)?.set) proto = Object.getPrototypeOf(proto) as object | null;
  if (proto) Object.getOwnPropertyDescriptor(proto, property)?.set?.call(element, value);
}

function send(element: HTMLElement, own: string, bubbling: string): void {
  const view = element.ownerDocument.defaultView ?? window;
  element.dispatchEvent(new view.FocusEvent(own));
  element.dispatchEvent(new view.FocusEvent(bubbling, { bubbles: true, composed: true }));
}
