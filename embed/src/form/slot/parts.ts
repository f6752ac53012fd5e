/** The fields that a slot brings: called, ordered and shown as the chosen country has them. */

import { make } from "../../dom";
import { autofillOf } from "./autofill";
import type { ControlPlace } from "../controls";
import { FieldView } from "../field";
import type { LayoutComponent, Layout, Slot } from "../model";
import { valueAt } from "../../dictionary";

// A region has a name and a code: who gives the one that is asked for gives both.
const PAIR: Record<string, string> = { region: "region_code", region_code: "region" };

export class Parts {
  readonly element = make("div", { class: "parts", hidden: true });
  readonly views: FieldView[];
  private layout: Layout | null = null;

  constructor(
    private readonly slot: Slot,
    place: ControlPlace,
    changed: () => void,
  ) {
    this.views = slot.parts.map((part) => {
      const autofill = part.component ? autofillOf(part.component, slot.key) : null;
      const view: FieldView = new FieldView(part, place, changed, autofill);
      view.element.addEventListener("change", () => this.pairRegion(view));
      return view;
    });
    this.element.append(...this.views.map((view) => view.element));
  }

  of(component: string): FieldView | undefined {
    return this.views.find((view) => view.field.component === component);
  }

  get areEmpty(): boolean {
    return this.views.every((view) => view.value === null);
  }

  /** Takes labels, order, necessity and choices from a layout; what was typed stays. */
  follow(layout: Layout): void {
    this.layout = layout;
    for (const view of this.views) {
      const component = view.field.component ?? "";
      const entry = this.entryOf(component);
      view.follow(entry ?? optional(component, layout), layout.language);
      view.shown = this.isShown(view, entry !== undefined, layout);
    }
    if (this.slot.keeps_order) return this.pairRegions();
    const order = layout.components.map((entry) => entry.component);
    const place = (view: FieldView): number => {
      const at = order.indexOf(view.field.component ?? "");
      return at < 0 ? this.views.indexOf(view) : at;
    };
    const sorted = [...this.views].sort((a, b) => place(a) - place(b));
    // Moving an element takes the focus from it: only where the order really differs.
    const current = Array.from(this.element.children);
    if (sorted.some((view, i) => view.element !== current[i])) {
      this.element.append(...sorted.map((view) => view.element));
    }
    this.pairRegions();
  }

  private pairRegions(): void {
    for (const view of this.views) this.pairRegion(view);
  }

  /** Optional parts that are empty, in the order on the form. */
  foldable(): FieldView[] {
    return this.inOrder().filter((view) => view.shown && view.value === null && !view.isRequired);
  }

  /** Leaves parts out of sight, and no others. */
  fold(out: readonly FieldView[]): void {
    for (const view of this.views) view.element.classList.toggle("folded", out.includes(view));
  }

  /** Without a layout the fields are called after their components, so that all can be filled. */
  followNothing(): void {
    for (const view of this.views) {
      const component = view.field.component;
      if (component && !view.label) view.follow(bare(component));
    }
  }

  /** Empties the half of a region that nobody sees, before its other half may be taken out. */
  dropHiddenRegions(): void {
    for (const view of this.views) if (this.isOtherHalf(view)) view.value = null;
  }

  /**
   * The first part that is still needed, in the order on the form.
   *
   * Args:
   *   begun: the address is not complete, so that its number is needed as well.
   */
  firstNeeded(begun: boolean): FieldView | undefined {
    const needs = (view: FieldView): boolean =>
      view.isRequired || (begun && view.field.component === "number");
    const shown = this.inOrder().filter((view) => view.shown);
    const open = shown.filter((view) => view.value === null && needs(view));
    return open[0] ?? (begun && this.areEmpty ? shown[0] : undefined);
  }

  firstShown(): FieldView | undefined {
    return this.inOrder().find((view) => view.shown);
  }

  private inOrder(): FieldView[] {
    const children = Array.from(this.element.children);
    return [...this.views].sort(
      (a, b) => children.indexOf(a.element) - children.indexOf(b.element),
    );
  }

  private entryOf(component: string): LayoutComponent | undefined {
    return this.layout?.components.find((one) => one.component === component);
  }

  /**
   * What the country does not ask for is not shown, unless something stands in it, or the form's
   * own label says that it is asked for everywhere. What its administrator has hidden never is.
   */
  private isShown(view: FieldView, isInLayout: boolean, layout: Layout): boolean {
    if (layout.hidden.includes(view.field.component ?? "")) return false;
    if (isInLayout || view.field.label) return true;
    return view.value !== null && !this.isOtherHalf(view);
  }

  /** Whether a part is the half of a region that its country does not ask for. */
  private isOtherHalf(view: FieldView): boolean {
    const component = view.field.component ?? "";
    const other = valueAt(PAIR, component);
    return !view.field.label && !this.entryOf(component) && !!other && !!this.entryOf(other);
  }

  /** Gives the half of a region that nobody sees what goes with the one that was chosen. */
  private pairRegion(view: FieldView): void {
    const other = this.of(valueAt(PAIR, view.field.component ?? "") ?? "");
    if (!other || !this.isOtherHalf(other) || !view.options) return;
    const byCode = view.field.component === "region_code";
    const chosen = view.options.find((o) => (byCode ? o.code : o.name) === view.value);
    if (chosen) other.value = byCode ? chosen.name : chosen.code;
    else if (view.value === null) other.value = null;
  }
}

function optional(component: string, layout: Layout): LayoutComponent {
  return { ...bare(component), label: valueAt(layout.labels, component) ?? bare(component).label };
}

function bare(component: string): LayoutComponent {
  const label = component.charAt(0).toUpperCase() + component.slice(1).replace("_", " ");
  return { component, label, required: false, options: null };
}
