/** One input with its label, help and problem. */

import { make, setAttributes } from "../dom";
import { type Control, type ControlPlace, SelectControl, controlOf } from "./controls";
import type { LayoutComponent, Field, Value } from "./model";
import { idBeside } from "./ids";

export class FieldView {
  readonly element: HTMLElement;
  private readonly caption = make("label");
  private readonly problem = make("p", { class: "problem", hidden: true });
  private control: Control;
  private entry: LayoutComponent | null = null;
  private isNeeded = false;
  private isLocked = false;

  constructor(
    readonly field: Field,
    private readonly place: ControlPlace,
    private readonly changed: () => void,
    /** What a browser's autofill is told; null where the type of field says it. */
    private readonly autofill: string | null = null,
  ) {
    this.caption.id = idBeside(field.key, "label");
    this.control = this.newControl();
    this.problem.id = idBeside(field.key, "problem");
    const help = field.help ? make("p", { class: "help", id: idBeside(field.key, "help") }, field.help) : null;
    this.element = make("div", { class: `field ${field.type ?? "text"}` });
    // What is said of it comes after it was left: the room for it is there, so that nothing moves then.
    const saysLater = this.control.check !== undefined || field.component === "postcode";
    this.element.classList.toggle("says-later", saysLater);
    const unit = field.unit ? make("span", { class: "unit", id: idBeside(field.key, "unit") }, field.unit) : null;
    const { element } = this.control;
    const control = unit ? make("div", { class: "with-unit" }, element, unit) : element;
    if (controlOf(field).labelBehind) this.element.append(control, this.caption);
    else this.element.append(this.caption, control);
    this.element.append(...(help ? [help] : []), this.problem);
    this.caption.htmlFor = field.key;
    this.element.addEventListener("change", () => void this.checkWhenLeft());
    this.name(field.label ?? "", this.isRequired);
    if (field.default != null) this.value = field.default;
  }

  get key(): string {
    return this.field.key;
  }

  get value(): Value {
    return this.control.value;
  }

  set value(value: Value) {
    this.control.value = value;
  }

  /** Whether it cannot be changed for now; what stands in it is sent all the same. */
  set locked(locked: boolean) {
    this.isLocked = locked;
    this.applyLock();
  }

  /** Whether nothing is given. */
  get isEmpty(): boolean {
    return this.value === null || this.value === false;
  }

  /** The value as people read it: of a choice, its name. */
  get text(): string {
    return this.control.text;
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
      this.control.element.replaceWith(next.element);
      this.control = next;
      this.value = value;
      this.applyLock();
    }
    setAttributes(this.control.input, { "aria-required": this.isRequired ? "true" : null });
  }

  /** Whether a formula says that it must be filled now. */
  set needed(needed: boolean) {
    if (needed === this.isNeeded) return;
    this.isNeeded = needed;
    this.name(this.label, this.isRequired);
    setAttributes(this.control.input, { "aria-required": this.isRequired ? "true" : null });
  }

  /** The choices of the layout, where a part has some. */
  get options(): LayoutComponent["options"] {
    return this.entry?.options ?? null;
  }

  get isRequired(): boolean {
    const { required } = this.field;
    return Boolean(this.entry?.required || required || this.isNeeded || controlOf(this.field).alwaysNeeded);
  }

  /** Something on the form has changed that it may depend on. */
  refresh(): void {
    this.control.refresh?.();
  }

  /** The form is taken from its page. */
  leave(): void {
    this.control.leave?.();
  }

  private async checkWhenLeft(): Promise<void> {
    const { control } = this;
    const typed = JSON.stringify(control.value);
    const problem = await control.check?.();
    // Typed on meanwhile, it is checked when it is left again.
    if (problem === undefined || this.control !== control) return;
    if (problem !== null && JSON.stringify(control.value) !== typed) return;
    this.setProblem(problem);
  }

  /** Shows a problem, or takes it away. */
  setProblem(problem: string | null): void {
    this.problem.textContent = problem ?? "";
    this.problem.hidden = problem === null;
    setAttributes(this.control.input, {
      "aria-invalid": problem === null ? null : "true",
      "aria-describedby": this.described(problem === null ? "" : this.problem.id),
    });
  }

  get hasProblem(): boolean {
    return !this.problem.hidden;
  }

  get problemText(): string {
    return this.problem.textContent ?? "";
  }

  get label(): string {
    return this.caption.firstChild?.textContent ?? "";
  }

  focus(): void {
    const { input } = this.control;
    (input.matches("input, select, textarea") ? input : input.querySelector<HTMLElement>("input"))?.focus();
  }

  private applyLock(): void {
    const { input } = this.control;
    this.element.classList.toggle("locked", this.isLocked);
    // A list has no state in which it is read only: it cannot be opened then.
    if (input instanceof HTMLSelectElement) input.inert = this.isLocked;
    else setAttributes(input, { readonly: this.isLocked });
    setAttributes(input, { "aria-readonly": this.isLocked ? "true" : null });
  }

  private name(label: string, required: boolean): void {
    const sign = required ? make("span", { class: "needed" }, ` ${this.place.words.say("needed")}`) : null;
    this.caption.replaceChildren(label, ...(sign ? [sign] : []));
  }

  private newControl(): Control {
    const { field } = this;
    const control = this.bareControl();
    const isGroup = control.input.getAttribute("role") === "group";
    setAttributes(control.input, {
      id: field.key,
      "aria-labelledby": isGroup ? this.caption.id : null,
      "aria-required": this.isRequired && !isGroup ? "true" : null,
      "aria-describedby": this.described(),
    });
    if (!isGroup) {
      const maxlength = field.max_length ? String(field.max_length) : null;
      setAttributes(control.input, { name: field.key, maxlength, ...(this.autofill ? { autocomplete: this.autofill } : {}) });
    }
    control.element.addEventListener("input", () => {
      if (this.hasProblem) this.setProblem(null);
      this.changed();
    });
    return control;
  }

  /** The ids of what else is said of it. */
  private described(problem = ""): string | null {
    const { key, help, unit } = this.field;
    return [unit ? idBeside(key, "unit") : "", help ? idBeside(key, "help") : "", problem].filter(Boolean).join(" ") || null;
  }

  private bareControl(): Control {
    if (!this.entry?.options) return controlOf(this.field).make(this.field, this.place);
    const byCode = this.entry.component === "region_code";
    const choices = this.entry.options.map(
      (o) => [byCode ? o.code : o.name, o.name === o.latin ? o.name : `${o.name} (${o.latin})`] as const,
    );
    return new SelectControl(choices, this.place.words.say("choose"));
  }
}
