/** What the form, or one thing on it, says in the other languages of the form. */

import type { Field, FormDocument, Slot } from "../../../api/schemas";
import type { Design } from "../../kind";
import { languageName } from "./LanguageList";
import { TextSetting } from "./TextSetting";
import { valueAt } from "../../../../../embed/src/dictionary";

type Translations = NonNullable<FormDocument["translations"]>;
type Texts = Translations[string];
type Said = NonNullable<Texts["items"]>[string];

function languagesOf(document: FormDocument): string[] {
  return Object.keys(document.translations ?? {});
}

function withTexts(document: FormDocument, language: string, texts: Partial<Texts>): FormDocument {
  const translations = document.translations ?? {};
  const next = without({ ...valueAt(translations, language), ...texts }) as Texts;
  return { ...document, translations: { ...translations, [language]: next } };
}

/** A thing without what is empty. */
function without(thing: object): Record<string, unknown> {
  return Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== "" && value !== null && value !== undefined));
}

export function WholeTranslations({ design }: { design: Design }): React.ReactNode {
  const { document, edit } = design;
  const parts = [["title", "Title"], ["intro", "Introduction"], ["thanks", "Said after it was sent"]] as const;
  return languagesOf(document).map((language) => (
    <details key={language} className="translation" open>
      <summary>{languageName(language)}</summary>
      {parts.map(([name, label]) =>
        name === "title" || document[name] ? (
          <TextSetting
            key={name}
            label={`${label} in ${languageName(language)}`}
            lines={name !== "title"}
            value={valueAt(document.translations, language)?.[name]}
            placeholder={document[name] ?? ""}
            change={(text) => edit(withTexts(document, language, { [name]: text }), `${language} ${name}`)}
          />
        ) : null,
      )}
    </details>
  ));
}

export function TranslationSettings({ design, item }: { design: Design; item: Field | Slot }): React.ReactNode {
  const { document, edit } = design;
  const options = "options" in item ? (item.options ?? []) : [];
  const change = (language: string, said: Partial<Said>): void => {
    const items = { ...valueAt(document.translations, language)?.items };
    const next = without({ ...valueAt(items, item.key), ...said }) as Said;
    if (Object.keys(next).length) items[item.key] = next;
    else delete items[item.key];
    edit(withTexts(document, language, { items }), `${language} ${item.key} ${Object.keys(said).join()}`);
  };
  return languagesOf(document).map((language) => {
    const said = valueAt(valueAt(document.translations, language)?.items, item.key);
    return (
      <details key={language} className="translation" open>
        <summary>{languageName(language)}</summary>
        <TextSetting label={`Label in ${languageName(language)}`} value={said?.label} placeholder={item.label ?? ""} change={(label) => change(language, { label })} />
        {item.help && <TextSetting label={`Help in ${languageName(language)}`} lines value={said?.help} placeholder={item.help} change={(help) => change(language, { help })} />}
        {options.map((option) => (
          <TextSetting
            key={option.value}
            label={`“${option.label ?? option.value}” in ${languageName(language)}`}
            value={valueAt(said?.options, option.value)}
            placeholder={option.label ?? option.value}
            change={(text) => change(language, { options: without({ ...said?.options, [option.value]: text }) as Record<string, string> })}
          />
        ))}
      </details>
    );
  });
}
