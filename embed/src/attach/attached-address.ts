/**
 * One address of a target on a page: the finder at its place, and what is filled from it.
 *
 * It leaves the page as it was: `leave` takes its one element away, and nothing listens any more.
 */

import type * as api from "../api";
import { CaptureCount } from "../capture-count";
import { make, shadowOf } from "../dom";
import type { FinderElement, PickDetail } from "../finder/element";
import { type FieldState, Filling, type Source } from "../form/slot/filling";
import { TypedByHand } from "../form/slot/typed-by-hand";
import { type Connection, type FillAnswer, ServiceError, path } from "../service";
import type { Words } from "../words";
import { valueAt } from "../dictionary";
import { newFinder } from "./finder-name";
import { type CountryField, countryIn } from "./following";
import type { Outcome, PageField } from "./page-field";
import type { Say } from "./say";
import { aloneAround, seat, unseat } from "./seating";
import { attachedStyle } from "./style";

export interface AttachedPlace {
  target: string;
  connection: Connection;
  fields: ReadonlyMap<string, PageField>;
  words: Words;
  /** The administrator's, for inside the shadow tree. */
  style: string;
  say: Say;
  /** Whether captures are counted. */
  counts: boolean;
  /** By the keys of addresses, the field in which the page says the country. */
  countryFields: Readonly<Record<string, CountryField>>;
}

/** What `anchorline-filled` carries on a page that is attached. */
export interface AttachedFill {
  /** The key of the target's address. */
  address: string;
  label: string;
  answer: FillAnswer;
  /** By the keys of the target's fields, what became of the texts that were to be written. */
  outcomes: ReadonlyMap<string, Outcome>;
}

export class AttachedAddress {
  readonly host = make("div", { "data-anchorline": "" });
  private readonly finder: FinderElement;
  private readonly message = make("p", { role: "status", class: "message" });
  private readonly undo = make("button", { type: "button", class: "link", hidden: true });
  private readonly byHand: TypedByHand;
  private readonly filling: Filling;
  private before: FieldState | null = null;
  private hasFilled = false;
  private count: CaptureCount | null = null;
  private hidden: HTMLElement | null = null;
  /** The element that the finder sits at. */
  at: HTMLElement | null = null;

  constructor(
    private readonly address: api.PageAddressSchema,
    private readonly place: AttachedPlace,
  ) {
    const { words, connection, fields, target } = place;
    this.host.dataset.anchorline = `${target}/${address.key}`;
    this.filling = new Filling(
      { key: address.key, mapping: (address.mapping ?? []) as never },
      { fillPath: (key) => path`targets/${target}/addresses/${key}/fill`, connection, fields },
    );
    this.byHand = new TypedByHand(words, () => undefined);
    this.undo.textContent = words.say("undo");
    this.undo.addEventListener("click", () => this.takeBack());
    this.finder = this.newFinder();
    shadowOf(this.host, attachedStyle, place.style).append(this.finder, this.message, this.undo, this.byHand.element);
    for (const type of ["focusin", "input"]) this.host.addEventListener(type, () => this.follow(), { capture: true });
  }

  /** Puts the finder at a field. */
  sit(at: HTMLElement): void {
    const { sits = "before" } = this.address.finder ?? {};
    const { counts, target, connection } = this.place;
    if (counts) this.count ??= new CaptureCount(this.host, { kind: "target", name: target }, connection, this.isMine);
    this.at = at;
    unseat(this.host);
    seat(this.host, at, sits === "after" ? "after" : "before");
    shadowOf(this.host, attachedStyle, this.place.style); // of the document where it stands now
    if (sits === "instead" && !this.hasFilled && !(at as HTMLInputElement).value) this.hide(aloneAround(at));
  }

  /** The page that it stood on is gone from its frame: browsers let nothing that stood there listen any more. */
  get isLost(): boolean {
    return this.host.ownerDocument.defaultView === null;
  }

  leave(): void {
    this.count?.leave();
    this.count = null;
    this.filling.drop();
    this.unhide();
    unseat(this.host);
    this.at = null;
  }

  focus(): void {
    this.finder.focus();
  }

  /** Empties what was filled, as if nothing had been picked. */
  clear(): void {
    if (this.hasFilled) this.filling.write({ values: {} } as FillAnswer);
    this.finder.restore("", "");
    this.finder.removeAttribute("filled");
    this.hasFilled = false;
    this.latest = null;
    this.tell("");
  }

  private newFinder(): FinderElement {
    const { address, place } = this;
    const finder = newFinder();
    finder.words = place.words;
    finder.connection = place.connection;
    finder.setAttribute("label", address.finder?.label ?? place.words.say("findAddress"));
    finder.setAttribute("takes-groups", "");
    for (const [name, value] of Object.entries({
      country: address.countries?.join(","),
      kinds: address.kinds?.join(","),
      datasets: address.datasets?.join(","),
      language: address.language,
      "practice-word": address.practice_word,
      near: address.near?.latitude != null ? `${address.near.latitude},${address.near.longitude}` : null,
    })) {
      if (value) finder.setAttribute(name, value);
    }
    finder.addEventListener("anchorline-pick", (event) => void this.pick((event as CustomEvent<PickDetail>).detail));
    finder.addEventListener("anchorline-by-hand", () => this.goOnByHand());
    finder.addEventListener("anchorline-status", (event) => {
      const { status } = (event as CustomEvent<{ status: string }>).detail;
      if (status === "failed" || status === "slow") this.unhide();
    });
    return finder;
  }

  /** The finder looks first in the country that stands on the page. */
  private follow(): void {
    const of = valueAt(this.place.countryFields, this.address.key);
    if (!of) return;
    const all = Object.keys(of.texts);
    const chosen = countryIn(of, this.place.fields.get(of.field));
    this.finder.setAttribute("country", chosen || all.join(","));
    if (chosen) this.finder.setAttribute("elsewhere", all.filter((code) => code !== chosen).join(","));
    else this.finder.removeAttribute("elsewhere");
  }

  private async pick({ id, label, typed, row }: PickDetail): Promise<void> {
    const { words, say } = this.place;
    const source: Source = row.count > 1 ? { group_id: id, typed } : { address_id: id };
    const before = this.filling.state();
    let answer: FillAnswer | null;
    try {
      answer = await this.filling.ask(source);
    } catch (error) {
      const isRefused = error instanceof ServiceError && error.status > 0;
      if (isRefused) say("refused", this.address.key, error.message);
      this.unhide();
      const isUsedUp = error instanceof ServiceError && error.status === 429;
      const reason = isUsedUp ? words.say("noMoreLookups") : isRefused ? "" : words.say("noAnswer");
      this.tell(words.say("typeBelow", { reason, address: label }).trim());
      return;
    }
    if (!answer) return;
    this.unhide();
    const replaced = this.filling.write(answer);
    this.before = before;
    this.hasFilled = true;
    this.finder.setAttribute("filled", "");
    if (this.finder.text !== label) this.finder.restore(label, typed);
    this.undo.hidden = false;
    this.byHand.ask(before.filled.size ? replaced : []);
    this.count?.taken(row.count === 1);
    const outcomes = await this.tellOutcomes(answer);
    if (!outcomes) return;
    this.count?.stands(heldOf(answer, outcomes));
    const detail: AttachedFill = { address: this.address.key, label, answer, outcomes };
    this.host.dispatchEvent(new CustomEvent("anchorline-filled", { bubbles: true, composed: true, detail }));
  }

  /** Says what stands on the page, and what does not; null where another fill came between. */
  private async tellOutcomes(answer: FillAnswer): Promise<ReadonlyMap<string, Outcome> | null> {
    const { words, fields } = this.place;
    this.latest = answer;
    const written = Object.entries(answer.values).flatMap(([key, value]) => (value ? (fields.get(key) ?? []) : []));
    const outcomes = new Map(await Promise.all(written.map(async (field) => [field.key, await field.settled()] as const)));
    if (this.latest !== answer) return null;
    const of = (...kinds: Outcome[]): PageField[] => written.filter((field) => kinds.includes(outcomes.get(field.key) ?? "due"));
    const named = (some: PageField[]): string => some.map((field) => field.label).join(", ");
    const [due, refused] = [of("due"), of("refused")];
    for (const field of due) field.onLate = () => void this.tellOutcomes(answer);
    this.tell(
      [
        words.say("fieldsFilled", { count: of("held").length }),
        due.length ? words.say("fieldsLater", { parts: named(due) }) : "",
        refused.length ? words.say("fieldsNotFilled", { parts: named(refused) }) : "",
        ...answer.warnings,
      ].filter(Boolean).join(" "),
    );
    return outcomes;
  }

  private latest: FillAnswer | null = null;

  /** Whether an event is of an input that this address fills. */
  private readonly isMine = (event: Event): boolean => {
    const keys = new Set((this.address.mapping ?? []).flatMap((rule) => [rule.into ?? [], rule.fit?.into ?? []].flat()));
    const [target] = event.composedPath();
    return [...keys].some((key) => this.place.fields.get(key)?.control?.elements.includes(target as HTMLElement));
  };

  private takeBack(): void {
    this.latest = null;
    if (this.before) this.filling.restore(this.before);
    this.before = null;
    this.finder.restore(this.finder.typed, this.finder.typed);
    this.finder.removeAttribute("filled");
    this.byHand.ask([]);
    this.tell(this.place.words.say("asBefore"));
  }

  private goOnByHand(): void {
    this.unhide();
    this.finder.setAttribute("filled", "");
    this.at?.focus();
  }

  private tell(text: string): void {
    this.message.textContent = text;
    this.undo.hidden = this.before === null;
    if (!text) this.byHand.ask([]);
  }

  private hide(element: HTMLElement): void {
    this.hidden = element;
    element.style.setProperty("display", "none");
  }

  private unhide(): void {
    this.hidden?.style.removeProperty("display");
    this.hidden = null;
  }
}

/** Of an answer what stands on the page. */
function heldOf(answer: FillAnswer, outcomes: ReadonlyMap<string, Outcome>): FillAnswer {
  const values = Object.entries(answer.values).filter(([key]) => outcomes.get(key) === "held");
  return { ...answer, values: Object.fromEntries(values) };
}
