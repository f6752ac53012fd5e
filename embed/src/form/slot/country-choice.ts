/** The country of one slot: its list, its names, and its layout. */

import { make } from "../../dom";
import { Latest } from "../../latest";
import { type Connection, call, path } from "../../service";
import type { Words } from "../../words";
import { firstCountry } from "./country";
import type { Layout, Slot } from "../model";
import { idBeside } from "../ids";

export interface LayoutSource {
  form: string;
  connection: Connection;
  /** In which languages labels are wanted, BCP 47, the best first. */
  languages: string[];
  words: Words;
}

export class CountryChoice {
  private readonly select: HTMLSelectElement;
  private readonly layouts = new Latest();
  private readonly known = new Map<string, Layout>();

  constructor(
    private readonly slot: Slot,
    private readonly source: LayoutSource,
    changed: () => void,
  ) {
    const choices = slot.countries
      .map((code) => [code, this.nameOf(code)] as const)
      .sort((a, b) => a[1].localeCompare(b[1]));
    this.select = make(
      "select",
      { id: idBeside(slot.key, "country"), autocomplete: `section-${slot.key} country` },
      ...choices.map(([code, name]) => make("option", { value: code }, name)),
    );
    this.select.value = firstCountry(slot.countries, slot.country, navigator.languages);
    this.select.addEventListener("change", changed);
  }

  /** The list with its label; null where there is nothing to choose. */
  get element(): HTMLElement | null {
    if (this.slot.countries.length < 2) return null;
    const caption = make("label", { for: this.select.id }, this.source.words.say("country"));
    return make("div", { class: "field" }, caption, this.select);
  }

  /** ISO 3166-1 alpha-2. */
  get code(): string {
    return this.select.value;
  }

  /** Chooses a country, if the slot offers it. */
  set code(code: string) {
    if (this.slot.countries.includes(code)) this.select.value = code;
  }

  /** The countries that are offered beside the chosen one. */
  get others(): string[] {
    return this.slot.countries.filter((code) => code !== this.code);
  }

  nameOf(code: string): string {
    return new Intl.DisplayNames(this.source.languages, { type: "region" }).of(code) ?? code;
  }

  /** The form is taken from its page. */
  leave(): void {
    this.layouts.drop();
  }

  /** The chosen country's layout; null where another country was chosen in the meantime. */
  async layout(): Promise<Layout | null> {
    const { connection, languages, form } = this.source;
    const { code } = this;
    const known = this.known.get(code);
    if (known) {
      this.layouts.drop();
      return known;
    }
    const query = new URLSearchParams({ language: languages.join(","), form });
    const layout = await this.layouts.run((signal) =>
      call<Layout>(connection, path`layouts/${code}` + `?${query}`, { signal }),
    );
    if (!layout) return null;
    const named = { ...layout, name: this.nameOf(code) };
    this.known.set(code, named);
    return named;
  }
}
