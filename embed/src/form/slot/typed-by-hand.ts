/**
 * What was changed by hand since the last fill and another fill has replaced: asked about, field by
 * field. The address that was picked stands in the fields meanwhile, so that no two are mixed.
 */

import { make } from "../../dom";
import type { Words } from "../../words";
import type { Value } from "../model";
import type { FieldPort } from "./port";

export interface Replaced {
  field: FieldPort;
  /** What stood there, and how it read. */
  value: Value;
  text: string;
}

export class TypedByHand {
  readonly element = make("div", { class: "by-hand", role: "group", hidden: true });

  constructor(
    private readonly words: Words,
    private readonly changed: () => void,
  ) {
    this.element.setAttribute("aria-label", words.say("byHandBefore"));
  }

  /** Asks about fields; about none, it goes. */
  ask(replaced: readonly Replaced[]): void {
    this.element.replaceChildren(
      ...(replaced.length ? [make("p", {}, this.words.say("byHandBefore"))] : []),
      ...replaced.map((one) => this.row(one)),
    );
    this.element.hidden = replaced.length === 0;
  }

  private row({ field, value, text }: Replaced): HTMLElement {
    const sentence = make("span", {}, this.words.say("byHandNow", { part: field.label, now: field.text || "–" }));
    const keep = make("button", { type: "button", class: "link" }, this.words.say("byHandKeep", { typed: text }));
    const fine = make("button", { type: "button", class: "link" }, this.words.say("byHandFine"));
    const row = make("div", { class: "by-hand-row" }, sentence, keep, fine);
    const answered = (): void => {
      row.remove();
      this.element.hidden = this.element.querySelector(".by-hand-row") === null;
      if (this.element.hidden) field.focus();
      else this.element.querySelector("button")?.focus();
    };
    keep.addEventListener("click", () => {
      field.value = value;
      this.changed();
      answered();
    });
    fine.addEventListener("click", answered);
    return row;
  }
}
