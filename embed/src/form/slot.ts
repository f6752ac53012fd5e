/**
 * One address on the form: the country, the finder, and the fields that the slot brings.
 *
 * The fields are folded away until an address is picked, or somebody types it in by hand, or
 * the lookup is slow or silent, or there is nothing to look up. Picking clears every field of the
 * mapping first; *Undo* puts everything back.
 */

import { make } from "../dom";
import type { AddressValue } from "../formula/address-value";
import type { FinderElement } from "../finder/element";
import { type FillAnswer, ServiceError } from "../service";
import type { Texts } from "../words";
import { CountryChoice, type LayoutSource } from "./country-choice";
import type { ControlPlace } from "./controls";
import type { FieldView } from "./field";
import { type FillPlace, Filling, type Source } from "./filling";
import { KeptValues } from "./kept-values";
import type { Layout, Slot } from "./model";
import { Parts } from "./parts";
import { checkPostcode } from "./postcode-check";
import type { Picked, Snapshot } from "./slot-state";
import { SlotAddress } from "./slot-address";
import { finderOf } from "./slot-finder";

export interface SlotContext extends LayoutSource, FillPlace, ControlPlace {
  changed: () => void;
  /** Whether a formula of the form writes an address out. */
  isWritten: () => boolean;
  emit: (name: string, detail: unknown) => void;
}

const PHONE = "(max-width: 480px)";

export class SlotView {
  readonly element: HTMLFieldSetElement;
  private readonly parts: Parts;
  private readonly finder: FinderElement;
  private readonly country: CountryChoice;
  private readonly filling: Filling;
  private readonly message = make("p", { role: "status", class: "message" });
  private readonly kept: KeptValues;
  private readonly address: SlotAddress;
  private readonly undo = make("button", { type: "button", class: "link", hidden: true });
  private picked: Picked | null = null;
  private before: Snapshot | null = null;

  constructor(
    readonly slot: Slot,
    private readonly context: SlotContext,
  ) {
    this.kept = new KeptValues(context.words);
    this.undo.textContent = context.words.say("undo");
    this.parts = new Parts(slot, context, context.changed);
    for (const part of this.parts.views) {
      part.element.addEventListener("change", () => this.check(part));
      part.element.addEventListener("input", () => this.finder.setProblem(null));
    }
    this.country = new CountryChoice(slot, context, () => void this.switchCountry());
    this.filling = new Filling(slot, context);
    const { form, connection, changed, isWritten } = context;
    this.address = new SlotAddress(form, connection, this.parts.views, changed, isWritten);
    this.finder = this.newFinder();
    this.undo.addEventListener("click", () => void this.takeBack());
    this.element = make(
      "fieldset",
      { class: "slot" },
      make("legend", {}, slot.label),
      slot.help ? make("p", { class: "help" }, slot.help) : null,
      this.country.element,
      this.finder,
      make("div", { class: "message-line" }, this.message, this.undo),
      this.kept.element,
      this.parts.element,
    );
    void this.followCountry();
  }

  get shown(): boolean {
    return !this.element.hidden;
  }

  set shown(shown: boolean) {
    this.element.hidden = !shown;
  }

  get fields(): readonly FieldView[] {
    return this.parts.views;
  }

  /** Whether an address must be given. */
  isNeeded = false;

  /** Whether no address is given at all. */
  get isEmpty(): boolean {
    return this.picked === null && this.parts.areEmpty;
  }

  /** What is submitted beside the values of the fields, once no fill is under way any more. */
  get input(): { country_code: string; address_id: string | null; typed: string } {
    return {
      country_code: this.country.code,
      address_id: this.picked?.row.count === 1 ? this.picked.id : null,
      typed: (this.picked?.typed ?? this.finder.typed).slice(0, 500),
    };
  }

  /** The address as formulas have it. */
  get addressValue(): AddressValue {
    return this.address.value(this.country.code);
  }

  /** Waits for the fill that is under way. */
  settled(): Promise<void> {
    return this.filling.settled();
  }

  /** Shows the fields, so that the address can be typed in or corrected. */
  unfold(): void {
    this.parts.element.hidden = false;
  }

  /** Says what is wrong with the address as a whole: at the finder, or at the first field. */
  setProblem(detail: string | null): void {
    if (this.finder.hidden) this.parts.firstShown()?.setProblem(detail);
    else this.finder.setProblem(detail);
  }

  get hasProblem(): boolean {
    return this.finder.hasProblem;
  }

  focus(): void {
    if (this.finder.hidden) this.parts.firstShown()?.focus();
    else this.finder.focus();
  }

  // The country

  /** Another country was chosen: what it has no place for is kept aside, and may come back. */
  private async switchCountry(): Promise<void> {
    // A fill that is under way, and the address that was picked, are of another country now.
    this.filling.drop();
    this.picked = null;
    this.address.pick(null);
    this.undo.hidden = true;
    const layout = await this.layoutOfCountry();
    if (!layout) return;
    // Before the fields change: what is kept is called as it was when it was typed.
    this.parts.dropHiddenRegions();
    const { left, returned } = this.kept.move(this.parts.views, layout);
    this.parts.follow(layout);
    this.announce([
      this.say("fieldsOfCountry", { country: layout.name }),
      left.length ? this.say("keptAside", { parts: left.join(", ") }) : "",
      returned.length ? this.say("putBack", { parts: returned.join(", ") }) : "",
      layout.has_addresses ? "" : this.say("nothingToSearch", { country: layout.name }),
    ]);
    for (const part of this.parts.views) if (part.value !== null) this.check(part);
    this.context.changed();
  }

  /** Labels, order, necessity and choices as the chosen country has them. */
  private async followCountry(): Promise<void> {
    const layout = await this.layoutOfCountry();
    if (!layout) return;
    this.parts.follow(layout);
    if (!layout.has_addresses && !this.message.textContent) this.announce([this.say("nothingToSearch", { country: layout.name })]);
  }

  /** The chosen country's layout; null where there is none, or another was chosen meanwhile. */
  private async layoutOfCountry(): Promise<Layout | null> {
    this.finder.setAttribute("country", this.country.code);
    this.finder.setAttribute("elsewhere", this.country.others.join(","));
    try {
      const layout = await this.country.layout();
      // Without reference data there is nothing to find: straight to the fields.
      if (layout) this.finder.hidden = !layout.has_addresses;
      if (layout && !layout.has_addresses) this.unfold();
      return layout;
    } catch {
      this.parts.followNothing();
      this.unfold();
      return null;
    }
  }

  private check(part: FieldView): void {
    void checkPostcode(part, this.country.code, this.context);
  }

  // The finder

  private newFinder(): FinderElement {
    return finderOf(this.slot, this.context, {
      pick: (picked) => void this.pick(picked),
      byHand: () => void this.goOnByHand(),
      unfold: () => this.unfold(),
    });
  }

  private async pick(picked: Picked): Promise<void> {
    const { id, label, typed, row } = picked;
    const isGroup = row.count > 1;
    const before = this.snapshot();
    const source: Source = isGroup ? { group_id: id, typed } : { address_id: id };
    this.country.code = row.country_code;
    let answer: FillAnswer | null;
    try {
      answer = await this.filling.ask(source);
    } catch (error) {
      const reason = error instanceof ServiceError ? error.message : this.say("noAnswer");
      this.country.code = before.country;
      this.announce([this.say("typeBelow", { reason, address: label })]);
      this.unfold();
      return;
    }
    if (!answer) return;
    this.picked = picked;
    await this.show(answer, before, isGroup ? this.say("takenSoFar") : "");
    this.parts.firstNeeded(isGroup)?.focus();
    if (window.matchMedia(PHONE).matches) {
      this.message.parentElement?.scrollIntoView({ block: "start" });
    }
    this.context.emit("filled", { slot: this.slot.key, label, answer });
  }

  /** Carries what was typed into the fields, and goes on there. */
  private async goOnByHand(): Promise<void> {
    const typed = this.finder.text.trim();
    this.unfold();
    this.finder.setAttribute("filled", "");
    const goOn = (): void => (this.parts.firstNeeded(true) ?? this.parts.firstShown())?.focus();
    goOn();
    if (!typed || !this.parts.areEmpty) return;
    if (await this.carry(typed)) goOn();
  }

  /** Lays what was typed into the fields; false where somebody has begun to type there. */
  private async carry(typed: string): Promise<boolean> {
    const before = this.snapshot();
    const country_code = this.country.code;
    try {
      const answer = await this.filling.ask({ typed: typed.slice(0, 500), country_code });
      // Who began to type in the fields meanwhile knows better.
      if (!answer || !this.parts.areEmpty) return false;
      await this.show(answer, before, this.say("typedStands"));
    } catch {
      // Nobody is there to take it apart: all of it is at hand in the street's field.
      const street = this.parts.of("street") ?? this.parts.firstShown();
      if (!street || !this.parts.areEmpty) return false;
      street.value = typed;
      this.context.changed();
    }
    return true;
  }

  // Filling

  /** Writes an answer into the fields, and says what it did. */
  private async show(answer: FillAnswer, before: Snapshot, lead: string): Promise<void> {
    const replaced = this.filling.write(answer);
    this.address.pick(answer.address);
    this.before = before;
    this.kept.clear();
    this.finder.setProblem(null);
    this.finder.setAttribute("filled", "");
    this.unfold();
    const count = this.filling.count - answer.cleared.length;
    this.announce([
      lead,
      this.say("fieldsFilled", { count }),
      replaced.length ? this.say("replaced", { parts: replaced.join(", ") }) : "",
      ...answer.warnings,
    ]);
    this.undo.hidden = false;
    await this.followCountry();
    this.context.changed();
  }

  private snapshot(): Snapshot {
    return {
      fields: this.filling.state(),
      picked: this.picked,
      address: this.address.picked,
      kept: this.kept.all,
      country: this.country.code,
      text: this.picked?.label ?? this.finder.typed,
      typed: this.picked?.typed ?? this.finder.typed,
    };
  }

  /** Puts back what stood in the fields and in the finder before the last fill. */
  private async takeBack(): Promise<void> {
    const { before } = this;
    if (!before) return;
    this.filling.restore(before.fields);
    this.picked = before.picked;
    this.address.pick(before.address);
    this.before = null;
    this.undo.hidden = true;
    this.country.code = before.country;
    this.finder.restore(before.text, before.typed);
    this.announce([this.say("asBefore")]);
    await this.followCountry();
    this.kept.restore(before.kept, this.country.nameOf(before.country));
    this.context.changed();
    this.focus();
  }

  private say(name: keyof Texts, given: Record<string, string | number> = {}): string {
    return this.context.words.say(name, given);
  }

  private announce(sentences: string[]): void {
    this.message.textContent = sentences.filter(Boolean).join(" ");
  }
}
