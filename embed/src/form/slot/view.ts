/**
 * One address on the form: the country, the finder, the fields that the slot brings, and what else
 * the slot can do.
 *
 * The fields are folded away until an address is picked, or somebody types it in by hand, or
 * the lookup is slow or silent, or there is nothing to look up. Picking clears every field of the
 * mapping first; *Undo* puts everything back.
 */

import { dictionary } from "../../dictionary";
import { CaptureCount } from "../../capture-count";
import { make } from "../../dom";
import type { FinderElement } from "../../finder/element";
import type { AddressValue } from "../../formula/address-value";
import type { Texts } from "../../words";
import type { FieldView } from "../field";
import type { Slot } from "../model";
import { SlotAddress } from "./address";
import { SlotCapture } from "./capture";
import type { SlotContext } from "./context";
import { CountryChoice } from "./country-choice";
import { CountryFollower } from "./country-follower";
import type { SlotFeature } from "./feature";
import { featuresOf } from "./features";
import { Filling } from "./filling";
import { finderOf } from "./finder";
import { hostOf, shownState } from "./host";
import { KeptValues } from "./kept-values";
import { nearOf, personsPlace } from "./near";
import { Parts } from "./parts";
import { checkPostcode } from "./postcode-check";
import { ShownAs } from "./shown-as";
import { TypedByHand } from "./typed-by-hand";
import { type CapturedSlot, type Picked, type Position, type SlotInput, type SlotMemo, type SlotState, knownOf, placeOf } from "./state";

const PHONE = "(max-width: 480px)";

export class SlotView {
  readonly element: HTMLFieldSetElement;
  private readonly parts: Parts;
  private readonly finder: FinderElement;
  private readonly country: CountryChoice;
  private readonly filling: Filling;
  private readonly message = make("p", { role: "status", class: "message" });
  private readonly kept: KeptValues;
  private readonly byHand: TypedByHand;
  private readonly address: SlotAddress;
  private readonly shownAs: ShownAs;
  private readonly follower: CountryFollower;
  private readonly capture: SlotCapture;
  private readonly count: CaptureCount | null;
  private readonly features: SlotFeature[];
  private readonly undo = make("button", { type: "button", class: "link", hidden: true });
  private position: Position | null = null;
  private persons = "";

  constructor(
    readonly slot: Slot,
    private readonly context: SlotContext,
  ) {
    this.kept = new KeptValues(context.words);
    this.byHand = new TypedByHand(context.words, context.changed);
    this.undo.textContent = context.words.say("undo");
    this.parts = new Parts(slot, context, context.changed);
    for (const part of this.parts.views) {
      part.element.addEventListener("change", () => this.check(part));
      part.element.addEventListener("input", () => this.typedInto());
    }
    this.country = new CountryChoice(slot, context, () => void this.switchCountry());
    this.filling = new Filling(slot, context);
    this.address = new SlotAddress(context, this.parts.views);
    this.shownAs = new ShownAs(slot, this.parts, (name, given) => this.say(name, given));
    this.finder = this.newFinder();
    this.follower = this.newFollower();
    this.capture = this.newCapture();
    this.undo.addEventListener("click", () => void this.capture.takeBack().then(() => this.focus()));
    this.features = featuresOf(
      hostOf(this, context, {
        position: () => this.position,
        locate: (position) => (this.position = position),
        pick: (picked) => this.pick(picked),
        take: (from) => this.capture.take(from),
        announce: (sentence) => this.announce([sentence]),
      }),
    );
    const stands = (place: string): HTMLElement[] => this.features.filter((one) => one.stands === place).map((one) => one.element);
    this.element = make(
      "fieldset",
      { class: "slot" },
      make("legend", {}, slot.label),
      slot.help ? make("p", { class: "help" }, slot.help) : null,
      this.country.element,
      ...stands("before"),
      this.finder,
      make("div", { class: "message-line" }, this.message, this.undo),
      this.byHand.element,
      this.kept.element,
      this.shownAs.lines,
      this.shownAs.lock,
      this.parts.element,
      this.shownAs.more,
      ...stands("after"),
    );
    this.count = context.counts ? new CaptureCount(this.element, { kind: "form", name: context.form }, context.connection) : null;
    this.element.classList.toggle("map-beside", slot.map?.place === "beside");
    if (slot.near?.person) void personsPlace().then((place) => (this.persons = place));
    void this.follower.follow();
  }

  get shown(): boolean { return !this.element.hidden; }
  set shown(shown: boolean) { this.element.hidden = !shown; }

  get fields(): readonly FieldView[] { return this.parts.views; }

  /** Whether an address must be given. */
  isNeeded = false;
  /** Whether no address is given at all. */
  get isEmpty(): boolean { return this.capture.picked === null && this.parts.areEmpty; }

  /** What is submitted beside the values of the fields, once no fill is under way any more. */
  get input(): SlotInput {
    const { picked } = this.capture;
    return {
      country_code: this.country.code,
      address_id: picked?.row.count === 1 ? picked.id : null,
      typed: (picked?.typed ?? this.finder.typed).slice(0, 500),
      ...(this.position ? { position: this.position } : {}),
    };
  }

  /** The address as formulas have it. */
  get addressValue(): AddressValue {
    const value = this.address.value(this.country.code);
    const { position } = this;
    if (position?.source !== "pin") return value;
    return { ...value, latitude: position.latitude, longitude: position.longitude };
  }

  /** What has to be known to go on here later; the fields are kept apart. */
  get memo(): SlotMemo {
    const { picked } = this.capture;
    return { position: this.position, country: this.country.code, picked, text: picked?.label ?? this.finder.text, typed: this.finder.typed };
  }

  /** Goes on with what was given before; the fields are filled apart. */
  restore(memo: SlotMemo): void {
    this.country.code = memo.country;
    this.capture.picked = memo.picked;
    this.position = memo.position;
    this.finder.restore(memo.text, memo.typed);
    this.finder.setAttribute("filled", "");
    this.unfold();
    void this.follower.follow();
    void this.capture.recall().then(() => this.context.changed());
  }

  /** Fills the slot as a record keeps it; the fields are filled apart. */
  load(captured: CapturedSlot): void {
    const { country_code, address_id, typed, lines, components } = captured;
    this.country.code = country_code;
    const label = lines.join(", ");
    this.position = placeOf(captured);
    if (address_id) {
      this.capture.picked = { id: address_id, label, typed, row: { count: 1, country_code } };
      this.address.pick({ ...knownOf(captured), components: { ...components }, line: label, lines: [...lines] });
    }
    this.finder.restore(address_id ? label : "", typed);
    this.finder.setAttribute("filled", "");
    void this.follower.follow().then(() => this.shownAs.filled(true, lines));
  }

  /** Waits for the fill that is under way. */
  settled(): Promise<void> {
    return this.filling.settled();
  }

  /** Something on the form has changed: what depends on it follows. */
  update(): void {
    const near = nearOf(this.slot, (key) => shownState(this.context, this, key), this.persons);
    if (near !== (this.finder.getAttribute("near") ?? "")) this.finder.setAttribute("near", near);
    for (const feature of this.features) feature.update();
  }

  /** The form is taken from its page. */
  leave(): void {
    this.filling.drop();
    this.country.leave();
    for (const feature of this.features) feature.leave();
    this.count?.leave();
  }

  /** Shows the fields, so that the address can be typed in or corrected. */
  unfold(): void {
    this.shownAs.open();
  }

  /** Says what is wrong with the address as a whole: at the finder, or at the first field. */
  setProblem(detail: string | null): void {
    if (this.finder.hidden) this.parts.firstShown()?.setProblem(detail);
    else this.finder.setProblem(detail);
  }

  get hasProblem(): boolean { return this.finder.hasProblem; }
  get problemText(): string { return this.finder.problemText; }

  focus(): void {
    if (this.finder.hidden) this.parts.firstShown()?.focus();
    else this.finder.focus();
  }

  /** Another country was chosen. */
  private async switchCountry(): Promise<void> {
    this.capture.leaveCountry();
    this.changedByHand();
    if (!(await this.follower.switch())) return;
    for (const part of this.parts.views) if (part.value !== null) this.check(part);
    this.context.changed();
  }

  private check(part: FieldView): void {
    void checkPostcode(part, this.country.code, this.context);
  }

  // What happens in it

  private newFinder(): FinderElement {
    const finder = finderOf(this.slot, this.context, {
      pick: (picked) => void this.pick(picked),
      byHand: () => void this.goOnByHand(),
      unfold: () => this.unfold(),
    });
    finder.hidden = this.slot.appearance === "parts_only";
    return finder;
  }

  private newFollower(): CountryFollower {
    const { slot, country, parts, kept, finder, shownAs } = this;
    return new CountryFollower({
      slot, country, parts, kept, finder, shownAs,
      say: (name, given) => this.say(name, given),
      announce: (sentences) => this.announce(sentences),
      isSaid: () => this.message.textContent !== "",
    });
  }

  private newCapture(): SlotCapture {
    const { slot, parts, country, filling, kept, address, finder } = this;
    return new SlotCapture(
      { slot, parts, country, filling, kept, address },
      {
        say: (name, given) => this.say(name, given),
        announce: (sentences) => this.announce(sentences),
        offerUndo: (offered) => (this.undo.hidden = !offered),
        askAbout: (replaced) => this.byHand.ask(replaced),
        get finderTyped() { return finder.typed; },
        restoreFinder: (text, typed) => finder.restore(text, typed),
        unfold: () => this.unfold(),
        filled: (isWhole, lines) => {
          finder.setProblem(null);
          finder.setAttribute("filled", "");
          this.position = null;
          this.shownAs.filled(isWhole, lines);
        },
        goOn: (begun) => this.goOn(begun),
        followCountry: () => this.follower.follow(),
        changed: () => this.context.changed(),
      },
    );
  }

  private async pick(picked: Picked): Promise<void> {
    this.changedByHand();
    const answer = await this.capture.pick(picked);
    // Found in another way than by typing, it stands in the finder all the same.
    if (answer && this.finder.text !== picked.label) this.finder.restore(picked.label, picked.typed);
    if (!answer) return;
    this.count?.filled(answer, picked.row.count === 1);
    this.context.emit("filled", { slot: this.slot.key, label: picked.label, answer });
  }

  private goOn(begun: boolean): void {
    this.parts.firstNeeded(begun)?.focus();
    if (window.matchMedia(PHONE).matches) this.message.parentElement?.scrollIntoView({ block: "start" });
  }

  /** Carries what was typed into the fields, and goes on there. */
  private async goOnByHand(): Promise<void> {
    const typed = this.finder.text.trim();
    this.unfold();
    this.finder.setAttribute("filled", "");
    const goOn = (): void => (this.parts.firstNeeded(true) ?? this.parts.firstShown())?.focus();
    goOn();
    if (!typed || !this.parts.areEmpty) return;
    if (await this.capture.carry(typed)) goOn();
  }

  private typedInto(): void {
    this.finder.setProblem(null);
    this.changedByHand();
  }

  private changedByHand(): void {
    for (const feature of this.features) feature.changedByHand?.();
  }

  /** What it is filled with, as other slots and features see it. */
  get state(): SlotState {
    const given = this.parts.views.filter((part) => part.field.component && part.value !== null);
    const components = dictionary(given.map((part) => [part.field.component ?? "", String(part.value)] as const));
    return { country: this.country.code, picked: this.capture.picked, address: this.addressValue, components };
  }

  private say(name: keyof Texts, given: Record<string, string | number> = {}): string {
    return this.context.words.say(name, given);
  }
  private announce(sentences: string[]): void {
    this.message.textContent = sentences.filter(Boolean).join(" ");
  }
}
