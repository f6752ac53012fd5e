/** An ARIA combobox with a listbox, for rows that are handed in: what is typed is asked elsewhere. */

import { make, setAttributes } from "../../dom";

export interface ComboRow {
  id: string;
  label: string;
}

interface Wanted {
  /** Of the list: unique in the form. */
  id: string;
  /** Of the list, for who cannot see it. */
  label: string;
  placeholder?: string;
  /** Whether the focus alone does not open it: a key or a click does. */
  opensLater?: boolean;
  /** Something was typed, or the list is to be shown. */
  typed: () => void;
  pick: (row: ComboRow) => void;
  /** The focus has gone. */
  left: () => void;
}

export class ComboList {
  readonly element: HTMLElement;
  readonly input: HTMLInputElement;
  private readonly list: HTMLUListElement;
  private rows: readonly ComboRow[] = [];
  private active = -1;

  constructor(private readonly wanted: Wanted) {
    this.input = make("input", {
      type: "text", role: "combobox", autocomplete: "off", dir: "auto", "aria-autocomplete": "list",
      "aria-expanded": "false", "aria-controls": wanted.id, placeholder: wanted.placeholder ?? null,
    });
    this.list = make("ul", { id: wanted.id, role: "listbox", class: "choices-list", tabindex: "-1", hidden: true, "aria-label": wanted.label });
    this.element = make("div", { class: "link-box" }, this.input, this.list);
    this.input.addEventListener("input", (event) => {
      if (!(event as InputEvent).isComposing) wanted.typed();
    });
    this.input.addEventListener("compositionend", () => wanted.typed());
    if (!wanted.opensLater) this.input.addEventListener("focus", () => wanted.typed());
    this.input.addEventListener("click", () => {
      if (this.list.hidden) wanted.typed();
    });
    this.input.addEventListener("blur", () => {
      this.show(false);
      wanted.left();
    });
    this.input.addEventListener("keydown", (event) => this.onKey(event));
  }

  /** Shows rows, if somebody is there to see them. */
  offer(rows: readonly ComboRow[]): void {
    this.rows = rows;
    this.active = -1;
    this.show(rows.length > 0 && this.hasFocus);
  }

  private get hasFocus(): boolean {
    return (this.input.getRootNode() as ShadowRoot | Document).activeElement === this.input;
  }

  private onKey(event: KeyboardEvent): void {
    if (event.isComposing) return;
    const isOpen = !this.list.hidden;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      if (!isOpen) return this.wanted.typed();
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

  private pick(row: ComboRow): void {
    this.show(false);
    this.wanted.pick(row);
  }

  private show(open: boolean): void {
    this.list.hidden = !open;
    const id = (at: number): string => `${this.wanted.id}-${at}`;
    if (open) this.list.replaceChildren(...this.rows.map((row, at) => this.row(row, at, id(at))));
    this.list.children[this.active]?.scrollIntoView({ block: "nearest" });
    setAttributes(this.input, {
      "aria-expanded": String(open),
      "aria-activedescendant": open && this.active >= 0 ? id(this.active) : null,
    });
  }

  private row(row: ComboRow, at: number, id: string): HTMLElement {
    const item = make("li", { id, role: "option", dir: "auto", "aria-selected": String(at === this.active) }, row.label);
    // Pressing must not take the focus away, or the list would close before the click.
    item.addEventListener("pointerdown", (event) => event.preventDefault());
    item.addEventListener("click", () => this.pick(row));
    return item;
  }
}
