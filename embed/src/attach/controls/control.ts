/** What holds something of an address on a page, whatever it is made of. */

import type { FieldType } from "../holders";

/** Why nothing can be written now. */
export type Lock = "" | "disabled" | "readonly";

export interface Control {
  readonly type: FieldType;
  /** Where the focus goes, and what the finder sits at. */
  readonly element: HTMLElement;
  /** All elements in which a person changes it. */
  readonly elements: readonly HTMLElement[];
  /** Why nothing can be written now; empty where it can. */
  readonly lock: Lock;
  /** What stands in it, as a text. */
  read(): string;
  /** Whether what stands in it is a text, in whichever way the page spells it. */
  holds(text: string): boolean;
  /**
   * What a person does to it, as events in their order; false where no option is what is meant.
   *
   * Args:
   *   isOver: the person goes on there by themselves.
   */
  write(text: string, isOver: AbortSignal): Promise<boolean>;
}

/** What all have that are one element. */
export abstract class ElementControl<Of extends HTMLElement = HTMLElement> {
  readonly elements: readonly HTMLElement[];

  constructor(readonly element: Of) {
    this.elements = [element];
  }

  get lock(): Lock {
    return lockOf(this.element);
  }
}

/** Why an element lets nothing be written. */
export function lockOf(element: HTMLElement): Lock {
  const { disabled, readOnly } = element as HTMLInputElement;
  if (disabled || element.getAttribute("aria-disabled") === "true" || element.closest("fieldset[disabled]")) return "disabled";
  return (readOnly && element.getAttribute("role") !== "combobox") || element.getAttribute("aria-readonly") === "true" ? "readonly" : "";
}
