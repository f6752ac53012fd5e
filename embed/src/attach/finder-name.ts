/** A name for our finder that no other script has taken: another release of it may be on the page. */

import { FinderElement } from "../finder/element";

let name = "";

export function newFinder(): FinderElement {
  if (!name) {
    name = "anchorline-finder";
    for (let number = 2; customElements.get(name); number++) name = `anchorline-finder-${number}`;
    customElements.define(name, FinderElement);
  }
  return document.createElement(name) as FinderElement;
}
