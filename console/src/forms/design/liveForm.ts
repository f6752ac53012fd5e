/** The live form that is on the page, for whoever asks what stands in it. */

import type { LiveFormElement } from "./LiveDesign";

let current: LiveFormElement | null = null;

export function setLiveForm(element: LiveFormElement | null): void {
  current = element;
}

/** What was typed into it, as a formula can be tried with. */
export function givenInLiveForm(): { values: Record<string, unknown>; slots: Record<string, unknown> } {
  return current?.given ?? { values: {}, slots: {} };
}
