/** A list that a page has made itself, by the WAI-ARIA combobox pattern. */

import { fitting } from "../options";
import { type Control, type Lock, lockOf } from "./control";
import { focused, left } from "./events";
import { chooseIn, shownIn } from "./listbox";

export class ComboboxControl implements Control {
  readonly type = "list";
  readonly elements: readonly HTMLElement[];

  constructor(
    readonly element: HTMLElement,
    private readonly writes: string,
  ) {
    this.elements = [element];
  }

  get lock(): Lock {
    return lockOf(this.element);
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
