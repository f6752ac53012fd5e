/** A form in one of its languages. */

import { primary } from "../words";
import type { Field, FormDocument, Slot } from "./model";
import { valueAt } from "../dictionary";

const OWN_LANGUAGE = "en";

/** The languages that a form can be read in, its own first. */
export function languagesOf(document: FormDocument): string[] {
  const own = document.language ?? OWN_LANGUAGE;
  return [...new Set([own, ...Object.keys(document.translations ?? {})])];
}

/** The best language of a form for somebody: the first wanted that it has, or else its own. */
export function bestLanguage(document: FormDocument, wanted: readonly string[]): string {
  const languages = languagesOf(document);
  for (const tag of wanted) {
    const exact = languages.find((one) => one.toLowerCase() === tag.toLowerCase());
    const near = exact ?? languages.find((one) => primary(one) === primary(tag));
    if (near) return near;
  }
  return languages[0] ?? OWN_LANGUAGE;
}

/** A form with what it says in a language; what is not translated stays in its own. */
export function translated(document: FormDocument, language: string): FormDocument {
  const texts = valueAt(document.translations, language);
  if (!texts) return document;
  const item = <Item extends Field | Slot>(one: Item): Item => {
    const said = valueAt(texts.items, one.key);
    if (!said) return one;
    const changed = { ...one };
    if (said.label) changed.label = said.label;
    if (said.help) changed.help = said.help;
    if (!("parts" in changed)) {
      if (said.placeholder) changed.placeholder = said.placeholder;
      if (changed.options && said.options) {
        changed.options = changed.options.map((o) => ({ ...o, label: valueAt(said.options, o.value) ?? o.label ?? null }));
      }
    }
    return changed;
  };
  return {
    ...document,
    title: texts.title || document.title,
    intro: texts.intro || (document.intro ?? null),
    thanks: texts.thanks || (document.thanks ?? null),
    fields: document.fields.map((entry) => ("slot" in entry ? entry : item(entry))),
    slots: document.slots.map((slot) => ({ ...item(slot), parts: slot.parts.map(item) })),
  };
}
