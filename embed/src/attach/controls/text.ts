/** An input or a text area into which a text is typed, and an input that nobody sees. */

import type { FieldType } from "../holders";
import { plain } from "../options";
import { type Control, ElementControl } from "./control";
import { changed, focused, left, setNatively } from "./events";

export class TextControl extends ElementControl<HTMLInputElement | HTMLTextAreaElement> implements Control {
  constructor(
    element: HTMLInputElement | HTMLTextAreaElement,
    readonly type: FieldType,
  ) {
    super(element);
  }

  read(): string {
    return this.element.value;
  }

  holds(text: string): boolean {
    return plain(this.read()) === plain(text);
  }

  write(text: string): Promise<boolean> {
    const isSeen = this.type !== "hidden";
    if (isSeen) focused(this.element);
    setNatively(this.element, "value", text);
    changed(this.element, text);
    if (isSeen) left(this.element);
    return Promise.resolve(true);
  }
}
