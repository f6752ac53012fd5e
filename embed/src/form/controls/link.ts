/** A record of another form, found as one types: an ARIA combobox with a listbox. */

import { make, setAttributes } from "../../dom";
import { Latest } from "../../latest";
import { call, path } from "../../service";
import type { Field, Value } from "../model";
import type { Control, ControlPlace, MakeControl } from "./control";

interface Choice {
  id: string;
  label: string;
}

const PAUSE_MS = 150;

class LinkControl implements Control {
  readonly element: HTMLElement;
  readonly input: HTMLInputElement;
  private readonly list: HTMLUListElement;
  private readonly said = make("p", { class: "help", role: "status", hidden: true });
  private readonly asking = new Latest();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private rows: Choice[] = [];
  private active = -1;
  private chosen: Choice | null = null;

  constructor(
    private readonly field: Field,
    private readonly place: ControlPlace,
  ) {
    const id = `${field.key}-list`;
    this.input = make("input", {
      type: "text", role: "combobox", autocomplete: "off", dir: "auto", "aria-autocomplete": "list",
      "aria-expanded": "false", "aria-controls": id, placeholder: place.words.say("typeToFind"),
    });
    this.list = make("ul", { id, role: "listbox", class: "choices-list", hidden: true, "aria-label": place.words.say("suggestionsFor", { label: field.label ?? "" }) });
    this.element = make("div", { class: "link-box" }, this.input, this.list, this.said);
    this.input.addEventListener("input", () => {
      this.chosen = null;
      this.later();
    });
    this.input.addEventListener("focus", () => this.later());
    this.input.addEventListener("blur", () => this.leave());
    this.input.addEventListener("keydown", (event) => this.onKey(event));
  }

  get value(): Value {
    return this.chosen?.id ?? null;
  }

  set value(value: Value) {
    if (value === null || value === this.chosen?.id) {
      if (value === null) this.choose(null);
      return;
    }
    this.chosen = { id: String(value), label: "" };
    void this.ask({ id: String(value) }).then((found) => {
      const [record] = found ?? [];
      if (record && this.chosen?.id === record.id) this.choose(record);
    });
  }

  get text(): string {
    return this.chosen?.label ?? "";
  }

  private later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.search(), PAUSE_MS);
  }

  private async search(): Promise<void> {
    const typed = this.chosen ? "" : this.input.value.trim();
    try {
      const found = await this.ask({ q: typed });
      if (!found) return;
      this.rows = found;
      this.say(found.length ? "" : this.place.words.say("noneFound"));
    } catch {
      this.rows = [];
      this.say(this.place.words.say("notReached"));
    }
    this.active = -1;
    this.show(this.rows.length > 0 && this.hasFocus);
  }

  private ask(wanted: Record<string, string>): Promise<Choice[] | null> {
    const { form, draft, connection } = this.place;
    const query = new URLSearchParams({ ...wanted, ...(draft ? { draft: "true" } : {}) });
    return this.asking
      .run((signal) => call<{ records: Choice[] }>(connection, path`forms/${form}/links/${this.field.key}` + `?${query}`, { signal }))
      .then((answer) => answer?.records ?? null);
  }

  private get hasFocus(): boolean {
    return (this.input.getRootNode() as ShadowRoot).activeElement === this.input;
  }

  private onKey(event: KeyboardEvent): void {
    if (event.isComposing) return;
    const isOpen = !this.list.hidden;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      if (!isOpen) return this.later();
      const count = this.rows.length;
      this.active = (this.active + (event.key === "ArrowDown" ? 1 : count) + (this.active < 0 && event.key === "ArrowUp" ? 1 : 0)) % count;
      this.show(true);
    } else if (event.key === "Enter" && isOpen) {
      event.preventDefault();
      const row = this.rows[this.active] ?? (this.rows.length === 1 ? this.rows[0] : undefined);
      if (row) this.pick(row);
    } else if (event.key === "Escape" && isOpen) {
      event.preventDefault();
      this.show(false);
    }
  }

  private pick(row: Choice): void {
    this.choose(row);
    this.show(false);
    this.element.dispatchEvent(new Event("input", { bubbles: true }));
  }

  private choose(choice: Choice | null): void {
    this.chosen = choice;
    this.input.value = choice?.label ?? "";
  }

  /** What was typed and not chosen is no link: it does not stay as if it were one. */
  private leave(): void {
    clearTimeout(this.timer);
    this.show(false);
    if (!this.chosen) this.input.value = "";
  }

  private say(text: string): void {
    this.said.textContent = text;
    this.said.hidden = text === "";
  }

  private show(open: boolean): void {
    this.list.hidden = !open;
    this.list.replaceChildren(
      ...this.rows.map((row, at) => {
        const item = make("li", { id: `${this.field.key}-option-${at}`, role: "option", dir: "auto", "aria-selected": String(at === this.active) }, row.label);
        // Pressing must not take the focus away, or the list would close before the click.
        item.addEventListener("pointerdown", (event) => event.preventDefault());
        item.addEventListener("click", () => this.pick(row));
        return item;
      }),
    );
    setAttributes(this.input, {
      "aria-expanded": String(open),
      "aria-activedescendant": open && this.active >= 0 ? `${this.field.key}-option-${this.active}` : null,
    });
  }
}

export const link: MakeControl = (field, place) => new LinkControl(field, place);
