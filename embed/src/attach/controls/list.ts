/** A list of HTML in which an option is chosen. */

import { type Texts, fitting } from "../options";
import { type Control, ElementControl } from "./control";
import { changed, focused, left, setNatively } from "./events";

export class ListControl extends ElementControl<HTMLSelectElement> implements Control {
  readonly type = "list";

  constructor(
    element: HTMLSelectElement,
    private readonly writes: string,
  ) {
    super(element);
  }

  read(): string {
    const { selectedIndex, options } = this.element;
    const chosen = options[selectedIndex];
    return chosen?.value ? chosen.text.trim() || chosen.value : "";
  }

  holds(text: string): boolean {
    if (text === "") return !this.element.value;
    return this.optionFor(text)?.index === this.element.selectedIndex;
  }

  write(text: string): Promise<boolean> {
    const option = this.optionFor(text);
    if (!option && text !== "") return Promise.resolve(false);
    focused(this.element);
    setNatively(this.element, "selectedIndex", option?.index ?? Array.from(this.element.options).findIndex((one) => one.value === ""));
    changed(this.element, text);
    left(this.element);
    return Promise.resolve(true);
  }

  private optionFor(text: string): HTMLOptionElement | undefined {
    if (text === "") return undefined;
    const options = Array.from(this.element.options, (option) => ({ option, texts: textsOf(option) }));
    return fitting(options, text, this.writes)?.option;
  }
}

export const textsOf = (option: HTMLOptionElement): Texts => ({ value: option.value, text: option.text });
