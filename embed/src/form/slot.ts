/**
 * One address on the form: the country, the finder, and the fields that the slot brings.
 *
 * The fields are folded away until an address is picked, or somebody types it in by hand, or
 * the lookup is slow or silent. Picking clears every field of the mapping first.
 */

import { make } from "../dom";
import type { FinderElement } from "../finder/element";
import { type Connection, type FillAnswer, ServiceError, call, path } from "../service";
import { ValuesAside } from "./aside";
import { firstCountry } from "./country";
import { FieldView } from "./field";
import type { CheckAnswer, Layout, Slot, Value } from "./model";

export interface SlotContext {
  form: string;
  draft: boolean;
  connection: Connection;
  language: string;
  /** All fields of the form by key: a mapping may write into any of them. */
  fields: Map<string, FieldView>;
  changed: () => void;
  tell: (name: string, detail: unknown) => void;
}

interface Picked {
  id: string;
  label: string;
  typed: string;
}

export class SlotView {
  readonly element: HTMLFieldSetElement;
  readonly parts: FieldView[];
  private readonly finder: FinderElement;
  private readonly country: HTMLSelectElement;
  private readonly fold = make("div", { class: "parts", hidden: true });
  private readonly news = make("p", { role: "status", class: "news" });
  private readonly aside = new ValuesAside();
  private readonly undo = make("button", { type: "button", class: "link", hidden: true }, "Undo");
  private picked: Picked | null = null;
  private before: Map<string, Value> | null = null;
  private layoutAsked = 0;

  constructor(
    readonly slot: Slot,
    private readonly context: SlotContext,
  ) {
    this.parts = slot.parts.map((part) => new FieldView(part, context.changed));
    for (const part of this.parts) {
      part.element.addEventListener("change", () => void this.check(part));
    }
    this.country = this.countrySelect();
    this.finder = this.newFinder();
    this.fold.append(...this.parts.map((part) => part.element));
    this.undo.addEventListener("click", () => this.takeBack());
    const many = slot.countries.length > 1;
    this.element = make(
      "fieldset",
      { class: "slot" },
      make("legend", {}, slot.label),
      slot.help ? make("p", { class: "help" }, slot.help) : null,
      many ? make("div", { class: "field" }, this.countryCaption(), this.country) : null,
      this.finder,
      make("div", { class: "news-line" }, this.news, this.undo),
      this.aside.element,
      this.fold,
    );
    void this.followCountry();
  }

  get shown(): boolean {
    return !this.element.hidden;
  }

  set shown(shown: boolean) {
    this.element.hidden = !shown;
  }

  /** What is submitted beside the values of the fields. */
  get input(): { country_code: string; address_id: string | null; typed: string } {
    return {
      country_code: this.country.value,
      address_id: this.picked?.id ?? null,
      typed: (this.picked?.typed ?? this.finder.typed).slice(0, 500),
    };
  }

  /** Shows the fields, so that the address can be typed in or corrected. */
  unfold(): void {
    this.fold.hidden = false;
    this.finder.setAttribute("filled", "");
  }

  focusFirstPart(): void {
    this.parts.find((part) => part.shown)?.focus();
  }

  private countryCaption(): HTMLLabelElement {
    return make("label", { for: this.country.id }, "Country");
  }

  private countrySelect(): HTMLSelectElement {
    const { slot } = this;
    const names = new Intl.DisplayNames([this.context.language], { type: "region" });
    const choices = slot.countries
      .map((code) => [code, names.of(code) ?? code] as const)
      .sort((a, b) => a[1].localeCompare(b[1]));
    const select = make(
      "select",
      { id: `${slot.key}-country`, autocomplete: "off" },
      ...choices.map(([code, name]) => make("option", { value: code }, name)),
    );
    select.value = firstCountry(slot.countries, slot.country, navigator.languages);
    select.addEventListener("change", () => void this.switchCountry());
    return select;
  }

  private newFinder(): FinderElement {
    const finder = document.createElement("anchorline-finder") as FinderElement;
    finder.setAttribute("label", "Find the address");
    finder.setAttribute("kinds", this.slot.kinds.join(","));
    finder.connection = this.context.connection;
    finder.addEventListener("anchorline-pick", (event) => {
      void this.pick((event as CustomEvent<Picked>).detail);
    });
    finder.addEventListener("anchorline-by-hand", () => {
      this.unfold();
      this.focusFirstPart();
    });
    finder.addEventListener("anchorline-status", (event) => {
      const { status } = (event as CustomEvent<{ status: string }>).detail;
      if (status === "failed" || status === "slow") this.unfold();
    });
    return finder;
  }

  /** Another country was chosen: what it has no place for steps aside, and may come back. */
  private async switchCountry(): Promise<void> {
    // The address that was picked is of another country now.
    this.picked = null;
    this.undo.hidden = true;
    const layout = await this.layoutOfCountry();
    if (layout) {
      // Before the fields change: what steps aside is called as it was when it was typed.
      const { left, returned } = this.aside.move(this.parts, layout);
      this.follow(layout);
      this.news.textContent = [
        `The fields are now those of ${layout.name}.`,
        left.length ? `Kept aside: ${left.join(", ")}.` : "",
        returned.length ? `Put back: ${returned.join(", ")}.` : "",
      ]
        .filter(Boolean)
        .join(" ");
      for (const part of this.parts) if (part.value !== null) void this.check(part);
    }
    this.context.changed();
  }

  /** Spells a part as the country does, and says what is wrong with it while it is fresh. */
  private async check(part: FieldView): Promise<void> {
    const { component } = part.field;
    const typed = part.value;
    if (component !== "postcode" || typeof typed !== "string") return;
    let answer: CheckAnswer;
    try {
      answer = await call<CheckAnswer>(
        this.context.connection,
        path`layouts/${this.country.value}/check`,
        { body: { components: { [component]: typed }, form: this.context.form } },
      );
    } catch {
      return; // sending the form checks it again
    }
    if (part.value !== typed) return;
    part.say(answer.problems.find((problem) => problem.component === component)?.detail ?? null);
    part.value = answer.components[component] ?? typed;
  }

  /** Labels, order, necessity and choices as the chosen country has them. */
  private async followCountry(): Promise<void> {
    const layout = await this.layoutOfCountry();
    if (layout) this.follow(layout);
  }

  /** The chosen country's layout; null where there is none, or another was chosen meanwhile. */
  private async layoutOfCountry(): Promise<Layout | null> {
    const country = this.country.value;
    this.finder.setAttribute("country", country);
    const asked = ++this.layoutAsked;
    const { connection, language, form } = this.context;
    let layout: Layout;
    try {
      layout = await call<Layout>(
        connection,
        path`layouts/${country}` + `?${new URLSearchParams({ language, form })}`,
      );
    } catch {
      this.followNothing();
      return null;
    }
    return asked === this.layoutAsked ? layout : null;
  }

  private follow(layout: Layout): void {
    const order = layout.components.map((asked) => asked.component);
    for (const part of this.parts) {
      const asked = layout.components.find((a) => a.component === part.field.component);
      if (asked) part.follow(asked);
      // What the country does not ask for is not shown, unless something stands in it, or the
      // form's own label says that it is asked for everywhere. What its administrator has hidden
      // is never shown.
      const hidden = layout.hidden.includes(part.field.component ?? "");
      part.shown =
        !hidden && (Boolean(part.field.label) || asked !== undefined || part.value !== null);
    }
    const place = (part: FieldView): number => {
      const at = order.indexOf(part.field.component ?? "");
      return at < 0 ? this.parts.indexOf(part) : at;
    };
    const sorted = [...this.parts].sort((a, b) => place(a) - place(b));
    // Moving an element takes the focus from it: only where the order really differs.
    const current = Array.from(this.fold.children);
    if (sorted.some((part, i) => part.element !== current[i])) {
      this.fold.append(...sorted.map((part) => part.element));
    }
  }

  /** Without a layout the fields are called after their components, so that all can be filled. */
  private followNothing(): void {
    for (const part of this.parts) {
      const component = part.field.component;
      if (component && !part.label) {
        const label = component[0]?.toUpperCase() + component.slice(1).replace("_", " ");
        part.follow({ component, label, required: false, options: null });
      }
    }
    this.unfold();
  }

  private async pick(picked: Picked): Promise<void> {
    const { context, slot } = this;
    const owned = [...new Set(slot.mapping.map((rule) => rule.into))];
    const fields = owned.flatMap((key) => context.fields.get(key) ?? []);
    const before = new Map(fields.map((field) => [field.key, field.value]));
    let answer: FillAnswer;
    try {
      answer = await call<FillAnswer>(
        context.connection,
        path`forms/${context.form}/slots/${slot.key}/fill` + (context.draft ? "?draft=true" : ""),
        { body: { address_id: picked.id, values: Object.fromEntries(before) } },
      );
    } catch (error) {
      const reason = error instanceof ServiceError ? error.message : "The service does not answer.";
      this.news.textContent = `${reason} Type the address in below: ${picked.label}`;
      this.unfold();
      return;
    }
    this.before = before;
    this.picked = picked;
    this.aside.clear();
    for (const field of fields) {
      field.value = answer.values[field.key] || null;
      field.say(null);
      if (field.value !== null) field.shown = true;
    }
    await this.followCountry();
    this.unfold();
    const count = owned.length - answer.cleared.length;
    this.news.textContent = [
      `${count} ${count === 1 ? "field" : "fields"} filled.`,
      ...answer.warnings,
    ].join(" ");
    this.undo.hidden = false;
    context.changed();
    context.tell("filled", { slot: slot.key, label: picked.label, answer });
  }

  /** Puts back what stood in the fields before the last pick. */
  private takeBack(): void {
    for (const [key, value] of this.before ?? []) {
      const field = this.context.fields.get(key);
      if (field) field.value = value;
    }
    this.picked = null;
    this.before = null;
    this.undo.hidden = true;
    this.news.textContent = "The fields are as they were before.";
    this.context.changed();
    this.focusFirstPart();
  }
}
