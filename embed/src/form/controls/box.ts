/** A box to tick. */

import { make } from "../../dom";
import type { Value } from "../model";
import type { Control, ControlPlace, MakeControl } from "./control";

class BoxControl implements Control {
  readonly input = make("input", { type: "checkbox" });

  constructor(private readonly place: ControlPlace) {}

  get element(): HTMLElement {
    return this.input;
  }

  get value(): Value {
    return this.input.checked;
  }

  set value(value: Value) {
    this.input.checked = value === true;
  }

  get text(): string {
    return this.place.words.say(this.input.checked ? "yes" : "no");
  }
}

export const box: MakeControl = (_field, place) => new BoxControl(place);
