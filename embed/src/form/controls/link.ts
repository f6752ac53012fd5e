/** A record of another form, found as one types; a new one can be made where the form allows it. */

import { make } from "../../dom";
import { Latest } from "../../latest";
import { call, path } from "../../service";
import type { Field, Value } from "../model";
import { ComboList, type ComboRow } from "./combo-list";
import type { Control, ControlPlace, MakeControl } from "./control";
import { idBeside } from "../ids";

const PAUSE_MS = 150;

class LinkControl implements Control {
  readonly element: HTMLElement;
  private readonly combo: ComboList;
  private readonly said = make("p", { class: "help", role: "status", hidden: true });
  private readonly asking = new Latest();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private chosen: ComboRow | null = null;

  constructor(
    private readonly field: Field,
    private readonly place: ControlPlace,
  ) {
    const { words } = place;
    this.combo = new ComboList({
      id: idBeside(field.key, "list"),
      label: words.say("suggestionsFor", { label: field.label ?? "" }),
      placeholder: words.say("typeToFind"),
      typed: () => this.later(),
      pick: (row) => this.pick(row),
      left: () => this.leave(),
    });
    this.combo.input.addEventListener("input", () => (this.chosen = null));
    this.element = make("div", { class: "link-field" }, this.combo.element, this.said);
    if (field.makes_new && place.makeRecord) this.element.append(this.newOne(place.makeRecord));
  }

  get input(): HTMLElement {
    return this.combo.input;
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

  leave(): void {
    clearTimeout(this.timer);
    // What was typed and not chosen is no link: it does not stay as if it were one.
    if (!this.chosen) this.combo.input.value = "";
  }

  private newOne(makeRecord: NonNullable<ControlPlace["makeRecord"]>): HTMLElement {
    const button = make("button", { type: "button", class: "link" }, this.place.words.say("makeNew"));
    button.addEventListener("click", () => {
      void makeRecord(this.field.form ?? "", this.combo.input.value.trim()).then((made) => {
        if (made) this.pick(made);
        this.combo.input.focus();
      });
    });
    return button;
  }

  private later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.search(), PAUSE_MS);
  }

  private async search(): Promise<void> {
    const typed = this.chosen ? "" : this.combo.input.value.trim();
    try {
      const found = await this.ask({ q: typed });
      if (!found) return;
      this.say(found.length ? "" : this.place.words.say("noneFound"));
      this.combo.offer(found);
    } catch {
      this.say(this.place.words.say("notReached"));
      this.combo.offer([]);
    }
  }

  private ask(wanted: Record<string, string>): Promise<ComboRow[] | null> {
    const { form, draft, connection } = this.place;
    const query = new URLSearchParams({ ...wanted, ...(draft ? { draft: "true" } : {}) });
    return this.asking
      .run((signal) => call<{ records: ComboRow[] }>(connection, path`forms/${form}/links/${this.field.key}` + `?${query}`, { signal }))
      .then((answer) => answer?.records ?? null);
  }

  private pick(row: ComboRow): void {
    this.choose(row);
    this.element.dispatchEvent(new Event("input", { bubbles: true }));
  }

  private choose(choice: ComboRow | null): void {
    this.chosen = choice;
    this.combo.input.value = choice?.label ?? "";
  }

  private say(text: string): void {
    this.said.textContent = text;
    this.said.hidden = text === "";
  }
}

export const link: MakeControl = (field, place) => new LinkControl(field, place);
