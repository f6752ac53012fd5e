/**
 * Values that the chosen country has no place for.
 *
 * They are taken out of their fields, shown, and put back as soon as a country is chosen that has
 * a place for them again. Nothing typed is lost by choosing another country; what is kept here
 * is not sent.
 */

import { make } from "../../dom";
import type { Words } from "../../words";
import type { FieldView } from "../field";
import type { LayoutComponent, Layout, Value } from "../model";

export interface Kept {
  part: FieldView;
  label: string;
  value: Value;
  text: string;
}

export class KeptValues {
  readonly element = make("div", { class: "kept", hidden: true });
  private kept: Kept[] = [];

  constructor(private readonly words: Words) {}

  /** What is kept, to be handed to `restore`. */
  get all(): readonly Kept[] {
    return this.kept;
  }

  /** Puts back what was kept before. */
  restore(kept: readonly Kept[], country: string): void {
    this.kept = [...kept];
    this.show(country);
  }

  /** Takes out what the layout has no place for, and puts back what it has one for again. */
  move(parts: readonly FieldView[], layout: Layout): { left: string[]; returned: string[] } {
    const before = this.kept;
    this.kept = [];
    const returned: string[] = [];
    for (const one of before) {
      if (one.part.value === null && hasPlace(one.part, one.value, layout)) {
        one.part.value = one.value;
        returned.push(one.label);
      } else this.kept.push(one);
    }
    const left: string[] = [];
    for (const part of parts) {
      const value = part.value;
      if (value === null || hasPlace(part, value, layout)) continue;
      const { label, text } = part;
      this.kept = this.kept.filter((one) => one.part !== part);
      this.kept.push({ part, label, value, text });
      part.value = null;
      left.push(label);
    }
    this.show(layout.name);
    return { left, returned };
  }

  /** Forgets everything: another address was picked. */
  clear(): void {
    this.kept = [];
    this.show("");
  }

  private show(country: string): void {
    this.element.hidden = this.kept.length === 0;
    this.element.replaceChildren(
      make("p", {}, this.words.say("noPlace", { country })),
      make(
        "dl",
        {},
        ...this.kept.flatMap((one) => [
          make("dt", {}, one.label),
          make("dd", { dir: "auto" }, one.text),
        ]),
      ),
    );
  }
}

/** Whether a layout asks for a part, and its value is one that can be chosen there. */
function hasPlace(part: FieldView, value: Value, layout: Layout): boolean {
  // A part with a label of the form's own is asked for everywhere.
  const entry = layout.components.find((one) => one.component === part.field.component);
  if (!entry) return Boolean(part.field.label);
  return entry.options === null || isChoice(entry, value);
}

function isChoice(entry: LayoutComponent, value: Value): boolean {
  const byCode = entry.component === "region_code";
  return (entry.options ?? []).some((option) => (byCode ? option.code : option.name) === value);
}
