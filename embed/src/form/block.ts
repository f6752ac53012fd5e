/** What stands between fields and holds no value: a heading, a note. */

import { make } from "../dom";
import type { Field } from "./model";

export class BlockView {
  readonly element: HTMLElement;

  constructor(
    readonly field: Field,
    headingLevel: number,
  ) {
    const help = field.help ? make("p", { class: "help" }, field.help) : null;
    const text = field.label ?? "";
    const name = (["h2", "h3", "h4", "h5"] as const)[headingLevel - 1] ?? "h2";
    const label = field.type === "heading" ? make(name, {}, text) : make("p", {}, text);
    this.element = make("div", { class: `block ${field.type}` }, label, help);
  }

  set shown(shown: boolean) {
    this.element.hidden = !shown;
  }
}

/** Whether an entry of a form is one. */
export function isBlock(field: Field): boolean {
  return field.type === "heading" || field.type === "note";
}
