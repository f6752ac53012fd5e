/**
 * A telephone number: a dial code from a list that can be searched, and the number.
 *
 * The country is guessed until somebody says it: from the form, from an address, from the
 * browser's languages. When the field is left the service reads the number: what countries' numbers
 * are like is known there alone.
 */

import { make } from "../../dom";
import { Latest } from "../../latest";
import { type Connection, call } from "../../service";
import type { Field, Value } from "../model";
import { firstCountry } from "../slot/country";
import { ComboList, type ComboRow } from "./combo-list";
import type { Control, ControlPlace, MakeControl } from "./control";
import { valueAt } from "../../dictionary";
import { idBeside } from "../ids";

type DialCodes = Readonly<Record<string, number>>;
interface Read {
  e164: string | null;
  country_code: string;
  national: string;
  international: string;
}

const asked = new Map<string, Promise<DialCodes>>();

/** Dial codes by country: asked for once, when the first phone field is shown. */
function dialCodes(connection: Connection): Promise<DialCodes> {
  const known = asked.get(connection.base);
  if (known) return known;
  const asking = call<{ dial_codes: DialCodes }>(connection, "dial-codes").then((answer) => answer.dial_codes);
  asked.set(connection.base, asking);
  asking.catch(() => asked.delete(connection.base));
  return asking;
}

class PhoneControl implements Control {
  readonly element: HTMLElement;
  readonly input = make("input", { type: "tel", autocomplete: "tel", dir: "ltr", maxlength: "40" });
  private readonly combo: ComboList;
  private readonly asking = new Latest();
  private codes: DialCodes = {};
  private country = "";
  private isChosen = false;

  constructor(
    private readonly field: Field,
    private readonly place: ControlPlace,
  ) {
    const label = place.words.say("dialCodeOf", { label: field.label ?? "" });
    this.combo = new ComboList({
      id: idBeside(field.key, "dial-codes"),
      label,
      opensLater: true,
      typed: () => this.offer(),
      pick: (row) => this.choose(row.id),
      left: () => this.showCode(),
    });
    this.combo.input.setAttribute("aria-label", label);
    this.combo.input.classList.add("dial-code");
    this.combo.input.addEventListener("focus", () => this.combo.input.select());
    if (field.placeholder) this.input.placeholder = field.placeholder;
    this.element = make("div", { class: "phone-box" }, this.combo.element, this.input);
    void this.learn();
  }

  get value(): Value {
    const typed = this.input.value.trim();
    if (!typed) return null;
    const code = valueAt(this.codes, this.country);
    return /^(\+|＋|00)/.test(typed) || !code ? typed : `+${code} ${typed}`;
  }

  set value(value: Value) {
    const text = value === null ? "" : String(value);
    if (text === (this.value ?? "")) return;
    this.input.value = text;
    if (text) void this.read();
  }

  get text(): string {
    return String(this.value ?? "");
  }

  /** Something on the form has changed: the country follows the address until it is chosen. */
  refresh(): void {
    if (this.isChosen || this.input.value || !Object.keys(this.codes).length) return;
    this.country = this.guess();
    this.showCode();
  }

  /** What is wrong with the number, once it is left; null where nothing is, or nobody answers. */
  async check(): Promise<string | null> {
    const { words } = this.place;
    if (this.value === null) return null;
    const read = await this.read();
    if (read === undefined) return null;
    if (!read.e164) return words.say(/^[^+＋]/.test(this.text) && !this.country ? "phone_needs_plus" : "not_a_phone");
    return this.offered.includes(read.country_code) || !read.country_code ? null : words.say("phone_of_country", { country: this.nameOf(read.country_code) });
  }

  private async learn(): Promise<void> {
    try {
      this.codes = await dialCodes(this.place.connection);
    } catch {
      // Without the list a number is given with its plus sign.
      this.combo.element.hidden = true;
      return;
    }
    this.refresh();
    if (this.input.value) void this.read();
  }

  /** Asks what the number comes to, and shows it so; undefined where nobody answers. */
  private async read(): Promise<Read | undefined> {
    const number = String(this.value ?? "").slice(0, 60);
    try {
      const read = await this.asking.run((signal) =>
        call<Read>(this.place.connection, "phone-checks", { body: { number, country_code: this.country || null }, signal }),
      );
      if (!read || String(this.value ?? "").slice(0, 60) !== number) return undefined;
      if (read.e164) this.show(read);
      return read;
    } catch {
      return undefined; // sending the form checks it again
    }
  }

  private show(read: Read): void {
    const code = valueAt(this.codes, read.country_code);
    if (code) {
      this.country = read.country_code;
      this.isChosen = true;
      this.showCode();
    }
    const international = code ? read.international.replace(`+${code}`, "").trim() : read.international;
    this.input.value = this.field.phone?.national && code ? read.national : international;
  }

  private guess(): string {
    const { phone } = this.field;
    const offered = this.offered;
    const slot = this.place.countryOf?.(phone?.slot ?? null) ?? "";
    const given = [phone?.country ?? "", slot].find((code) => offered.includes(code));
    return given ?? firstCountry(offered, null, navigator.languages);
  }

  private get offered(): string[] {
    const { phone } = this.field;
    const only = phone?.only?.length ? phone.only : Object.keys(this.codes);
    return only.filter((code) => code in this.codes && !(phone?.without ?? []).includes(code));
  }

  private nameOf(code: string): string {
    return new Intl.DisplayNames([this.place.words.language], { type: "region" }).of(code) ?? code;
  }

  private offer(): void {
    const typed = this.combo.input.value.trim().toLowerCase();
    const isUntouched = typed === "" || typed === this.shownCode.toLowerCase();
    const first = this.field.phone?.first ?? [];
    const rank = (code: string): number => (first.includes(code) ? first.indexOf(code) : first.length);
    const rows: ComboRow[] = this.offered
      .map((code) => ({ id: code, label: `${this.nameOf(code)} +${valueAt(this.codes, code)}` }))
      .filter(({ id, label }) => isUntouched || label.toLowerCase().includes(typed) || id.toLowerCase() === typed)
      .sort((a, b) => rank(a.id) - rank(b.id) || a.label.localeCompare(b.label, this.place.words.language));
    this.combo.offer(rows);
  }

  private choose(code: string): void {
    this.country = code;
    this.isChosen = true;
    this.showCode();
    this.input.focus();
    this.element.dispatchEvent(new Event("input", { bubbles: true }));
  }

  private get shownCode(): string {
    const code = valueAt(this.codes, this.country);
    return code ? `${this.country} +${code}` : "";
  }

  private showCode(): void {
    this.combo.input.value = this.shownCode;
  }
}

export const phone: MakeControl = (field, place) => new PhoneControl(field, place);
