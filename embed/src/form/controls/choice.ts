/** A choice of one, from a list; a choice of several, with boxes to tick. */

import { make } from "../../dom";
import type { Field, Value } from "../model";
import type { Control, MakeControl } from "./control";

type Choices = readonly (readonly [value: string, label: string])[];

/** A list to choose from; nothing is chosen at first. */
export class SelectControl implements Control {
  readonly input: HTMLSelectElement;

  constructor(choices: Choices, nothing: string) {
    const first = make("option", { value: "" }, nothing);
    this.input = make("select", {}, first, ...choices.map(([value, label]) => make("option", { value }, label)));
  }

  get element(): HTMLElement {
    return this.input;
  }

  get value(): Value {
    return this.input.value.trim() === "" ? null : this.input.value;
  }

  /** A value that is no choice of the list is offered all the same: nothing is lost. */
  set value(value: Value) {
    const text = value === null ? "" : String(value);
    const known = Array.from(this.input.options, (option) => option.value);
    if (text && !known.includes(text)) this.input.append(make("option", { value: text }, text));
    this.input.value = text;
  }

  get text(): string {
    return this.input.selectedOptions[0]?.text ?? "";
  }
}

class BoxesControl implements Control {
  readonly element = make("div", { class: "boxes", role: "group" });
  private readonly boxes: { box: HTMLInputElement; label: string }[];

  constructor(choices: Choices) {
    this.boxes = choices.map(([value, label]) => ({ box: make("input", { type: "checkbox", value }), label }));
    this.element.append(...this.boxes.map(({ box, label }) => make("label", {}, box, make("span", {}, label))));
  }

  get input(): HTMLElement {
    return this.element;
  }

  get value(): Value {
    const chosen = this.boxes.filter(({ box }) => box.checked).map(({ box }) => box.value);
    return chosen.length ? chosen : null;
  }

  set value(value: Value) {
    const chosen = Array.isArray(value) ? value : [value];
    for (const { box } of this.boxes) box.checked = chosen.includes(box.value);
  }

  get text(): string {
    return this.boxes.filter(({ box }) => box.checked).map(({ label }) => label).join(", ");
  }
}

const choicesOf = (field: Field): Choices => (field.options ?? []).map((o) => [o.value, o.label ?? o.value] as const);

export const choice: MakeControl = (field, { words }) => new SelectControl(choicesOf(field), words.say("choose"));
export const choices: MakeControl = (field) => new BoxesControl(choicesOf(field));
