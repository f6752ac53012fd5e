/** A group of radio buttons, of HTML or by ARIA's roles. */

import { radiosOf } from "../holders";
import { labelOfRadio } from "../labels";
import { type Texts, fitting } from "../options";
import { type Control, type Lock, lockOf } from "./control";
import { changed, focused, left, setNatively } from "./events";

export interface RadioOption {
  element: HTMLElement;
  texts: Texts;
}

export class RadioControl implements Control {
  readonly type = "radio";

  constructor(
    readonly element: HTMLElement,
    private readonly writes: string,
  ) {}

  get elements(): readonly HTMLElement[] {
    return radioOptions(this.element).map((one) => one.element);
  }

  get lock(): Lock {
    const locks = this.elements.map(lockOf);
    return locks.every(Boolean) ? (locks[0] ?? "") : "";
  }

  read(): string {
    const chosen = radioOptions(this.element).find((one) => isChecked(one.element));
    return chosen ? chosen.texts.text || chosen.texts.value : "";
  }

  holds(text: string): boolean {
    const options = radioOptions(this.element);
    const chosen = options.find((one) => isChecked(one.element));
    return text === "" ? !chosen : chosen !== undefined && fitting(options, text, this.writes) === chosen;
  }

  write(text: string): Promise<boolean> {
    const options = radioOptions(this.element);
    const meant = text === "" ? undefined : fitting(options, text, this.writes);
    if (text === "") return Promise.resolve(this.empty(options));
    if (!meant || lockOf(meant.element)) return Promise.resolve(false);
    focused(meant.element);
    if (!isChecked(meant.element)) meant.element.click();
    left(meant.element);
    return Promise.resolve(true);
  }

  /** Nobody can take a choice back by hand; a page of ARIA's roles cannot be asked to. */
  private empty(options: RadioOption[]): boolean {
    const chosen = options.find((one) => isChecked(one.element));
    if (!chosen) return true;
    if (chosen.element.localName !== "input") return false;
    setNatively(chosen.element, "checked", false);
    changed(chosen.element, "");
    return true;
  }
}

export function radioOptions(element: HTMLElement): RadioOption[] {
  if (element.localName === "input") {
    return radiosOf(element as HTMLInputElement).map((one) => ({ element: one, texts: { value: one.value, text: labelOfRadio(one) } }));
  }
  return Array.from(element.querySelectorAll<HTMLElement>("[role=radio]"), (one) => ({
    element: one,
    texts: { value: one.getAttribute("data-value") ?? "", text: one.getAttribute("aria-label") ?? one.textContent?.trim() ?? "" },
  }));
}

const isChecked = (element: HTMLElement): boolean => (element as HTMLInputElement).checked || element.getAttribute("aria-checked") === "true";
