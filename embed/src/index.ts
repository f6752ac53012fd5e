/** The custom elements: `<anchorline-finder>` and `<anchorline-form>`. */

import { FinderElement, type PickDetail } from "./finder/element";
import { FormElement } from "./form/element";
import type { FilledDetail, SubmittedDetail } from "./form/events";
import { warnOnce } from "./setup";

const ELEMENTS = { "anchorline-finder": FinderElement, "anchorline-form": FormElement } as const;

for (const [name, element] of Object.entries(ELEMENTS)) {
  // A page may come to load the script twice, perhaps of two releases: the first one stays.
  if (!customElements.get(name)) customElements.define(name, element);
  else warnOnce(document.createElement(name), "the script was loaded a second time and left alone.");
}

declare global {
  interface HTMLElementTagNameMap {
    "anchorline-finder": FinderElement;
    "anchorline-form": FormElement;
  }
  interface HTMLElementEventMap {
    "anchorline-pick": CustomEvent<PickDetail>;
    "anchorline-status": CustomEvent<{ status: string }>;
    "anchorline-by-hand": CustomEvent<Record<string, never>>;
    "anchorline-filled": CustomEvent<FilledDetail>;
    "anchorline-submitted": CustomEvent<SubmittedDetail>;
  }
}

export { FinderElement, FormElement };
export type { FilledDetail, PickDetail, SubmittedDetail };
export type { Address } from "./service";
