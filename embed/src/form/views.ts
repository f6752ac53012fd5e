/** The views of a form's items: made once each, kept as long as what they show stays the same. */

import type { AddressValue } from "../formula/address-value";
import { BlockView, isBlock } from "./block";
import { FieldView } from "./field";
import type { Worked } from "./logic";
import type { Field, FormDocument, Slot, Value } from "./model";
import { itemsOf } from "./model";
import { OutputView } from "./output";
import type { Item } from "./shape";
import type { SlotContext } from "./slot/context";
import type { SlotMemo } from "./slot/state";
import { SlotView } from "./slot/view";
import { valueAt } from "../dictionary";

type View = FieldView | SlotView | BlockView | OutputView;

export class FormViews {
  /** Fields by key, the parts of slots among them. */
  readonly fields: Map<string, FieldView>;
  private views = new Map<string, { item: Item; view: View }>();

  constructor(
    private readonly context: SlotContext,
    private readonly level: number,
  ) {
    this.fields = context.fields;
  }

  /** The form is taken from its page. */
  leave(): void {
    for (const slot of this.slots) slot.leave();
    for (const field of this.fields.values()) field.leave();
  }

  get slots(): SlotView[] {
    return this.of(SlotView);
  }

  /** Takes a document: what is as it was keeps its view, what has changed keeps what was typed. */
  take(document: FormDocument): void {
    const before = this.views;
    const typed = this.values();
    this.views = new Map();
    this.fields.clear();
    this.context.slots.clear();
    for (const item of itemsOf(document)) {
      const known = before.get(item.key);
      const isSame = known !== undefined && (known.item === item || JSON.stringify(known.item) === JSON.stringify(item));
      const view = isSame ? known.view : this.newView(item);
      this.views.set(item.key, { item, view });
      if (view instanceof FieldView) this.fields.set(item.key, view);
      if (view instanceof SlotView) {
        this.context.slots.set(item.key, view);
        for (const part of view.fields) this.fields.set(part.key, part);
      }
      if (known && !isSame && known.view instanceof SlotView) known.view.leave();
      if (isSame || !known) continue;
      const parts = view instanceof SlotView ? view.fields : view instanceof FieldView ? [view] : [];
      for (const part of parts) {
        const value = valueAt(typed, part.key);
        if (value !== undefined && value !== null) part.value = value;
      }
    }
  }

  elementOf(item: Item): HTMLElement {
    const found = this.views.get(item.key);
    if (!found) throw new Error(`no view of ${item.key}`);
    return found.view.element;
  }

  /** What is given, by field. */
  values(): Record<string, Value> {
    return Object.fromEntries([...this.fields].map(([key, field]) => [key, field.value]));
  }

  /** What has to be known of the slots to go on with them. */
  memos(): Record<string, SlotMemo> {
    return Object.fromEntries(this.slots.filter((slot) => !slot.isEmpty).map((slot) => [slot.slot.key, slot.memo]));
  }

  /** Puts back what was given before. */
  restore(values: Readonly<Record<string, Value>>, slots: Readonly<Record<string, SlotMemo>>): void {
    for (const slot of this.slots) {
      const memo = valueAt(slots, slot.slot.key);
      if (memo) slot.restore(memo);
    }
    for (const [key, value] of Object.entries(values)) {
      const field = this.fields.get(key);
      if (field && value !== null) field.value = value;
    }
  }

  addresses(): Record<string, AddressValue> {
    return Object.fromEntries(this.slots.map((slot) => [slot.slot.key, slot.addressValue]));
  }

  /** Shows what is to be shown, marks what is needed, and shows what formulas come to. */
  show(worked: Worked): void {
    for (const [key, { view }] of this.views) {
      const shown = worked.shown.has(key);
      if (view instanceof OutputView) view.show(valueAt(worked.values, key), shown);
      else if (view instanceof FieldView) view.shown = view.field.type !== "hidden" && shown;
      else view.shown = shown;
      if (view instanceof SlotView) view.isNeeded = worked.needed.has(key);
    }
    for (const [key, field] of this.fields) field.needed = worked.needed.has(key);
    for (const slot of this.slots) slot.update();
    for (const field of this.fields.values()) field.refresh();
  }

  /** Everything that can have a problem, in the order on the form. */
  inOrder(keys?: ReadonlySet<string>): (FieldView | SlotView)[] {
    return [...this.views].flatMap(([key, { view }]) => {
      if (keys && !keys.has(key)) return [];
      if (view instanceof SlotView) return [view, ...view.fields];
      return view instanceof FieldView ? [view] : [];
    });
  }

  /** The key of the item that a view belongs to: of a part, its slot's. */
  itemOf(one: FieldView | SlotView): string {
    if (one instanceof SlotView) return one.slot.key;
    return this.slots.find((slot) => slot.fields.includes(one))?.slot.key ?? one.key;
  }

  private of<Kind extends View>(kind: abstract new (...given: never[]) => Kind): Kind[] {
    return [...this.views.values()].flatMap(({ view }) => (view instanceof kind ? [view] : []));
  }

  private newView(item: Item): View {
    if ("parts" in item) return new SlotView(item satisfies Slot, this.context);
    const field: Field = item;
    if (field.type === "formula") return new OutputView(field, this.context.words);
    if (isBlock(field)) return new BlockView(field, this.level);
    return new FieldView(field, this.context, this.context.changed);
  }
}
