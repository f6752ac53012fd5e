/** The switch between the languages of a form. */

import { make } from "../dom";
import type { Words } from "../words";
import { idOfForm } from "./ids";

export class LanguageSwitch {
  /** Null where there is one language alone. */
  readonly element: HTMLElement | null;

  constructor(languages: readonly string[], chosen: string, words: Words, choose: (language: string) => void) {
    if (languages.length < 2) {
      this.element = null;
      return;
    }
    // Each is called as those call it who read it.
    const options = languages.map((tag) => make("option", { value: tag, lang: tag }, nameOf(tag)));
    const select = make("select", { id: idOfForm("language") }, ...options);
    select.value = chosen;
    select.addEventListener("change", () => choose(select.value));
    this.element = make("div", { class: "language" }, make("label", { for: idOfForm("language") }, words.say("language")), select);
  }
}

function nameOf(tag: string): string {
  const name = new Intl.DisplayNames([tag], { type: "language" }).of(tag) ?? tag;
  return name.charAt(0).toLocaleUpperCase(tag) + name.slice(1);
}
