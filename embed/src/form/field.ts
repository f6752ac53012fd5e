/** One input with its label, help and problem. */

import { make, setAttributes } from "../dom";
import { type Control, controlOf, select } from "./controls";
import type { LayoutComponent, Field, Value } from "./model";

export class FieldView {
  readonly element: HTMLElement;
  private readonly caption = make("label");
  private readonly problem = make("p", { class: "problem", hidden: true });
  private control: Control;
  private entry: LayoutComponent | null = null;
  private isNeeded = false;

  constructor(
    readonly field: Field,
    private readonly changed: () => void,
    /** What a browser's autofill is told; null where the type of field says it. */
    private readonly autofill: string | null = null,
  ) {
    this.control = this.newControl();
    this.problem.id = `${field.key}-problem`;
    const help = field.help ? make("p", { class: "help", id: `${field.key}-help` }, field.help) : null;
    this.element = make("div", { class: `field ${field.type ?? "text"}` });
    const unit = field.unit ? make("span", { class: "unit", id: `${field.key}-unit` }, field.unit) : null;
    const control = unit ? make("div", { class: "with-unit" }, this.control, unit) : this.control;
    if (controlOf(field).labelBehind) this.element.append(control, this.caption);
    else this.element.append(this.caption, control);
    this.element.append(...(help ? [help] : []), this.problem);
    this.caption.htmlFor = field.key;
    this.name(field.label ?? "", this.isRequired);
  }

  get key(): string {
    return this.field.key;
  }

  get value(): Value {
    if (this.control instanceof HTMLInputElement && this.control.type === "checkbox") {
      return this.control.checked;
    }
    return this.control.value.trim() === "" ? null : this.control.value;
  }

  set value(value: Value) {
    if (this.control instanceof HTMLInputElement && this.control.type === "checkbox") {
      this.control.checked = value === true;
    } else {
      const text = value === null ? "" : String(value);
      if (this.control instanceof HTMLSelectElement) this.offer(text);
      this.control.value = text;
    }
  }

  /** The value as people read it: of a choice, its name. */
  get text(): string {
    if (this.control instanceof HTMLSelectElement) return this.control.selectedOptions[0]?.text ?? "";
    return String(this.value ?? "");
  }

  /** Whether a value that the form keeps can be seen: of a layout's country, or given anyway. */
  set shown(shown: boolean) {
    this.element.hidden = !shown;
  }

  get shown(): boolean {
    return !this.element.hidden;
  }

  /** Takes label, choices and necessity from a layout; what was typed stays. */
  follow(entry: LayoutComponent, language = ""): void {
    const value = this.value;
    const hadOptions = this.entry?.options ?? null;
    this.entry = entry;
    this.name(this.field.label || entry.label, this.isRequired);
    setAttributes(this.caption, {
      lang: this.field.label ? null : language || null,
      dir: this.field.label ? null : "auto",
    });
    if (hadOptions !== entry.options) {
      const next = this.newControl();
      this.control.replaceWith(next);
      this.control = next;
      this.value = value;
    }
    setAttributes(this.control, { "aria-required": this.isRequired ? "true" : null });
  }

  /** Whether a formula says that it must be filled now. */
  set needed(needed: boolean) {
    if (needed === this.isNeeded) return;
    this.isNeeded = needed;
    this.name(this.label, this.isRequired);
    setAttributes(this.control, { "aria-required": this.isRequired ? "true" : null });
  }

  /** The choices of the layout, where a part has some. */
  get options(): LayoutComponent["options"] {
    return this.entry?.options ?? null;
  }

  get isRequired(): boolean {
    const { required } = this.field;
    return Boolean(this.entry?.required || required || this.isNeeded || controlOf(this.field).alwaysNeeded);
  }

  /** Shows a problem, or takes it away. */
  setProblem(problem: string | null): void {
    this.problem.textContent = problem ?? "";
    this.problem.hidden = problem === null;
    setAttributes(this.control, {
      "aria-invalid": problem === null ? null : "true",
      "aria-describedby": this.described(problem === null ? "" : this.problem.id),
    });
  }

  get hasProblem(): boolean {
    return !this.problem.hidden;
  }

  get label(): string {
    return this.caption.firstChild?.textContent ?? "";
  }

  focus(): void {
    this.control.focus();
  }

  private name(label: string, required: boolean): void {
    const sign = required ? make("span", { class: "needed" }, " (needed)") : null;
    this.caption.replaceChildren(label, ...(sign ? [sign] : []));
  }

  private newControl(): Control {
    const { field } = this;
    const shared = {
      id: field.key,
      name: field.key,
      maxlength: field.max_length ? String(field.max_length) : null,
      autocomplete: this.autofill,
      "aria-required": this.isRequired ? "true" : null,
      "aria-describedby": this.described(),
    };
    const control = this.bareControl();
    setAttributes(control, shared);
    control.addEventListener("input", () => {
      if (this.hasProblem) this.setProblem(null);
      this.changed();
    });
    return control;
  }

  /** The ids of what else is said of it. */
  private described(problem = ""): string | null {
    const { key, help, unit } = this.field;
    return [unit ? `${key}-unit` : "", help ? `${key}-help` : "", problem].filter(Boolean).join(" ") || null;
  }

  private bareControl(): Control {
    if (this.entry?.options) {
      const byCode = this.entry.component === "region_code";
      return select(
        this.entry.options.map((o) => [
          byCode ? o.code : o.name,
          o.name === o.latin ? o.name : `${o.name} (${o.latin})`,
        ]),
      );
    }
    return controlOf(this.field).make(this.field);
  }

  /** A value that is no choice of the list is offered all the same: nothing is lost. */
  private offer(value: string): void {
    const known = Array.from((this.control as HTMLSelectElement).options, (o) => o.value);
    if (value && !known.includes(value)) this.control.append(make("option", { value }, value));
  }
}
