/** The live form: the embedded element as the designer uses it, and the one that is on the page. */

import type { FormLogic } from "../../../../embed/src/form/logic";
import type { FillAnswer, FormDocument } from "../../api/schemas";

export interface Shown {
  document: FormDocument;
  logic: FormLogic;
  version: null;
}

export interface LiveFormElement extends HTMLElement {
  connection: { base: string; headers: Record<string, string> };
  design: Shown | null;
  revise: (shown: Shown) => void;
  mark: (key: string) => void;
  readonly given: { values: Record<string, unknown>; slots: Record<string, unknown> };
}

export interface Filled {
  slot: string;
  label: string;
  answer: FillAnswer;
}

let current: LiveFormElement | null = null;

export function setLiveForm(element: LiveFormElement | null): void {
  current = element;
}

/** What was typed into it, as a formula can be tried with. */
export function givenInLiveForm(): { values: Record<string, unknown>; slots: Record<string, unknown> } {
  return current?.given ?? { values: {}, slots: {} };
}
