/** A formula field: its value is shown as the form is filled, and never sent. */

import type { Value } from "../formula/values";
import { make } from "../dom";
import type { Words } from "../words";
import { readable } from "./logic";
import type { Field } from "./model";
import { idBeside } from "./ids";

export class OutputView {
  readonly element: HTMLElement;
  private readonly output: HTMLOutputElement;

  constructor(
    readonly field: Field,
    private readonly words: Words,
  ) {
    this.output = make("output", { id: field.key, "aria-live": "polite", "aria-labelledby": idBeside(field.key, "label") });
    const unit = field.unit ? make("span", { class: "unit" }, field.unit) : null;
    const help = field.help ? make("p", { class: "help" }, field.help) : null;
    this.element = make(
      "div",
      { class: "field formula" },
      make("span", { class: "label", id: idBeside(field.key, "label") }, field.label ?? ""),
      make("div", { class: "with-unit" }, this.output, unit),
      help,
    );
  }

  show(value: Value | undefined, shown: boolean): void {
    this.element.hidden = !shown || Boolean(this.field.hidden);
    const text = readable(value, this.words);
    if (this.output.textContent !== text) this.output.textContent = text;
    this.element.classList.toggle("open", text === "");
  }
}
