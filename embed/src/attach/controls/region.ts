/** A region of a page that people edit: lines of text, and perhaps an editor of the page's own around it. */

import { plain } from "../options";
import { type Control, ElementControl, type Lock } from "./control";
import { changed } from "./events";

export class RegionControl extends ElementControl implements Control {
  readonly type = "region";

  override get lock(): Lock {
    return this.element.isContentEditable ? super.lock : "readonly";
  }

  read(): string {
    return this.element.innerText.replace(/\n{2,}/gu, "\n").replace(/\u00a0/gu, " ").trim();
  }

  holds(text: string): boolean {
    return plain(this.read()) === plain(text);
  }

  /** Typed, as far as the browser lets it be: editors follow that. Else the lines are put there. */
  async write(text: string): Promise<boolean> {
    const page = this.element.ownerDocument;
    const before = page.activeElement as HTMLElement | null;
    this.element.focus({ preventScroll: true });
    page.defaultView?.getSelection()?.selectAllChildren(this.element);
    page.execCommand("delete");
    text.split("\n").forEach((line, number) => {
      if (number) page.execCommand("insertParagraph");
      if (line) page.execCommand("insertText", false, line);
    });
    await new Promise((resolve) => setTimeout(resolve));
    if (!this.holds(text)) {
      this.element.replaceChildren(...text.split("\n").flatMap((line, number) => [...(number ? [page.createElement("br")] : []), page.createTextNode(line)]));
      changed(this.element, text);
    }
    this.element.blur();
    if (before && before !== this.element) before.focus({ preventScroll: true });
    return true;
  }
}
