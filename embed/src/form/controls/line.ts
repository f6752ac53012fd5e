/** One line of text, several lines, or an input of the browser's own kind. */

import { make } from "../../dom";
import type { Field, Value } from "../model";
import type { Control, MakeControl } from "./control";

class LineControl implements Control {
  constructor(readonly input: HTMLInputElement | HTMLTextAreaElement) {}

  get element(): HTMLElement {
    return this.input;
  }

  get value(): Value {
    return this.input.value.trim() === "" ? null : this.input.value;
  }

  set value(value: Value) {
    this.input.value = value === null ? "" : String(value);
  }

  get text(): string {
    return String(this.value ?? "");
  }
}

const placeholder = (field: Field): string | null => field.placeholder ?? null;
const limit = (value: Field["least"]): string | null => (value == null ? null : String(value));

/** An input of one line. */
export function line(attributes: Record<string, string> = {}): MakeControl {
  return (field) =>
    new LineControl(make("input", { type: "text", dir: "auto", placeholder: placeholder(field), ...attributes }));
}

export const lines: MakeControl = (field) =>
  new LineControl(make("textarea", { rows: "4", dir: "auto", placeholder: placeholder(field) }));

export const day: MakeControl = ({ least, most }) =>
  new LineControl(make("input", { type: "date", min: limit(least), max: limit(most) }));
