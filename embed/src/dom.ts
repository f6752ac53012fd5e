/** Making elements: no markup is ever parsed, so nothing typed can become markup. */

type Attributes = Record<string, string | boolean | null | undefined>;
type Child = Node | string | null;

/** An element with attributes (true: present, false, null or undefined: absent) and children. */
export function make<Name extends keyof HTMLElementTagNameMap>(
  name: Name,
  attributes: Attributes = {},
  ...children: Child[]
): HTMLElementTagNameMap[Name] {
  const element = document.createElement(name);
  setAttributes(element, attributes);
  element.append(...children.filter((child): child is Node | string => child !== null));
  return element;
}

/** Sets or removes attributes. */
export function setAttributes(element: Element, attributes: Attributes): void {
  for (const [name, value] of Object.entries(attributes)) {
    if (value === false || value === null || value === undefined) element.removeAttribute(name);
    else element.setAttribute(name, value === true ? "" : value);
  }
}

/**
 * A shadow root with style sheets; constructed, so that a strict content policy allows them, and of
 * the host's own document: those of another one, around its frame, are not taken.
 */
export function shadowOf(host: HTMLElement, ...styles: string[]): ShadowRoot {
  const root = host.shadowRoot ?? host.attachShadow({ mode: "open", delegatesFocus: true });
  const view = host.ownerDocument.defaultView ?? window;
  root.adoptedStyleSheets = styles.map((text) => {
    const sheet = new view.CSSStyleSheet();
    sheet.replaceSync(text);
    return sheet;
  });
  return root;
}
