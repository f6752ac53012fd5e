/** A list that a page has made itself, by the WAI-ARIA combobox pattern. */

import { fitting } from "../options";
import { type Control, ElementControl } from "./control";
import { focused, left } from "./events";
import { chooseIn, shownIn } from "./listbox";

export class ComboboxControl extends ElementControl implements Control {
  readonly type = "list";

  constructor(
    element: HTMLElement,
    private readonly writes: string,
  ) {
    super(element);
  }

  read(): string {
    return shownIn(this.element);
  }

  holds(text: string): boolean {
    const shown = this.read();
    if (!text) return !shown;
    return fitting([{ texts: { value: shown, text: shown } }], text, this.writes) !== undefined;
  }

  async write(text: string, isOver: AbortSignal): Promise<boolean> {
    focused(this.element);
    const isThere = await chooseIn(this.element, text, this.writes, isOver);
    left(this.element);
    return isThere;
  }
}
