/** The languages that a form can be read in. */

import { Select } from "antd";

import type { FormDocument } from "../../../api/schemas";
import { Setting } from "./Setting";
import { valueAt } from "../../../../../embed/src/dictionary";

const LANGUAGES = ["en", "ar", "cy", "da", "de", "el", "es", "et", "fi", "fr", "ga", "he", "hr", "hu", "it", "ja", "ko", "lt", "lv", "nb", "nl", "pl", "pt", "ro", "sk", "sl", "sv", "tr", "uk", "zh"];
const NAMES = new Intl.DisplayNames(["en"], { type: "language" });

export const languageName = (tag: string): string => NAMES.of(tag) ?? tag;

export function LanguageList(props: { document: FormDocument; set: (settings: Partial<FormDocument>) => void }): React.ReactNode {
  const { document, set } = props;
  const own = document.language ?? "en";
  const translations = document.translations ?? {};
  const choices = [...new Set([...LANGUAGES, own, ...Object.keys(translations)])].map((value) => ({ value, label: languageName(value) }));
  return (
    <>
      <Setting label="Written in">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            showSearch={{ optionFilterProp: "label" }}
            value={own}
            options={choices.filter((choice) => !(choice.value in translations))}
            onChange={(language) => set({ language: language === "en" ? null : language })}
          />
        )}
      </Setting>
      <Setting label="Also to be read in" hint="Each reads the best language that there is for them, and can change it. What is not translated stays as it is written.">
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            showSearch={{ optionFilterProp: "label" }}
            value={Object.keys(translations)}
            options={choices.filter((choice) => choice.value !== own)}
            onChange={(languages: string[]) => {
              const next = Object.fromEntries(languages.map((tag) => [tag, valueAt(translations, tag) ?? { items: {} }]));
              set({ translations: languages.length ? next : null } as Partial<FormDocument>);
            }}
          />
        )}
      </Setting>
    </>
  );
}
