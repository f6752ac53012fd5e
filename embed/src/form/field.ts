/** One input with its label, help and problem. */

import { make, setAttributes } from "../dom";
import type { LayoutComponent, Field, Value } from "./model";

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

const INPUTS: Record<string, Record<string, string>> = {
  number: { type: "text", inputmode: "decimal" },
  date: { type: "date" },
  phone: { type: "tel", autocomplete: "tel" },
  email: { type: "email", autocomplete: "email" },
  hidden: { type: "hidden" },
};

export class FieldView {
  readonly element: HTMLElement;
  private readonly caption = make("label");
  private readonly problem = make("p", { class: "problem", hidden: true });
  private control: Control;
  private entry: LayoutComponent | null = null;

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
    if (field.type === "yes_no") this.element.append(this.control, this.caption);
    else this.element.append(this.caption, this.control);
    this.element.append(...(help ? [help] : []), this.problem);
    this.caption.htmlFor = field.key;
    this.name(field.label ?? "", field.required ?? false);
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
    this.name(this.field.label || entry.label, entry.required || (this.field.required ?? false));
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

  /** The choices of the layout, where a part has some. */
  get options(): LayoutComponent["options"] {
    return this.entry?.options ?? null;
  }

  get isRequired(): boolean {
    return (this.entry?.required ?? false) || (this.field.required ?? false);
  }

  /** Shows a problem, or takes it away. */
  setProblem(problem: string | null): void {
    this.problem.textContent = problem ?? "";
    this.problem.hidden = problem === null;
    const described = [
      this.field.help ? `${this.key}-help` : "",
      problem === null ? "" : this.problem.id,
    ];
    setAttributes(this.control, {
      "aria-invalid": problem === null ? null : "true",
      "aria-describedby": described.filter(Boolean).join(" ") || null,
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
      "aria-required": field.required ? "true" : null,
      "aria-describedby": field.help ? `${field.key}-help` : null,
    };
    const control = this.bareControl();
    setAttributes(control, shared);
    control.addEventListener("input", () => {
      if (this.hasProblem) this.setProblem(null);
      this.changed();
    });
    return control;
  }

  private bareControl(): Control {
    const { field } = this;
    if (field.type === "long_text") return make("textarea", { rows: "4" });
    if (field.type === "yes_no") return make("input", { type: "checkbox" });
    if (field.type === "choice") {
      return select((field.options ?? []).map((o) => [o.value, o.label ?? o.value]));
    }
    if (this.entry?.options) {
      const byCode = this.entry.component === "region_code";
      return select(
        this.entry.options.map((o) => [
          byCode ? o.code : o.name,
          o.name === o.latin ? o.name : `${o.name} (${o.latin})`,
        ]),
      );
    }
    return make("input", { type: "text", dir: "auto", ...INPUTS[field.type ?? "text"] });
  }

  /** A value that is no choice of the list is offered all the same: nothing is lost. */
  private offer(value: string): void {
    const known = Array.from((this.control as HTMLSelectElement).options, (o) => o.value);
    if (value && !known.includes(value)) this.control.append(make("option", { value }, value));
  }
}

function select(choices: [string, string][]): HTMLSelectElement {
  const first = make("option", { value: "" }, "Choose …");
  return make(
    "select",
    {},
    first,
    ...choices.map(([value, label]) => make("option", { value }, label)),
  );
}
