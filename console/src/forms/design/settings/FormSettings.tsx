/** Settings of the form as a whole. */

import { Segmented, Select } from "antd";

import type { FormDocument } from "../../../api/schemas";
import type { SettingsProps } from "./props";
import { LanguageList } from "./LanguageList";
import { PublicSettings } from "./PublicSettings";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";
import { TextSetting } from "./TextSetting";
import { WholeTranslations } from "./TranslationSettings";

const STYLES = [
  { value: "whole", label: "All at once", says: "Everything stands on one page, one below another." },
  { value: "pages", label: "Page by page", says: "Each page by itself, with how far one has come. Add pages to divide the form." },
  { value: "questions", label: "One question at a time", says: "Each field and each address by itself." },
];

export function FormSettings({ form, design }: SettingsProps): React.ReactNode {
  const { document, edit } = design;
  const set = (settings: Partial<FormDocument>): void => {
    const next: Record<string, unknown> = { ...document, ...settings };
    for (const [name, value] of Object.entries(settings)) {
      if (value === "" || value === false || value === null) delete next[name];
    }
    edit(next as FormDocument, `form ${Object.keys(settings).join()}`);
  };
  const style = document.style ?? "whole";
  return (
    <>
      <div className="settings-bar">
        <h2>The form</h2>
      </div>
      <TextSetting label="Title" value={document.title} change={(title) => title.trim() && set({ title })} />
      <p className="key-line">
        Key: <span className="key">{form}</span>
      </p>
      <Setting label="Filled by" hint={document.kind === "web" ? "Anyone, at its public page and on pages of your own." : "Staff, here in the console."}>
        {(id) => (
          <Segmented
            id={id}
            block
            value={document.kind}
            options={[{ value: "web", label: "Anyone" }, { value: "record", label: "Staff" }]}
            onChange={(kind) => set({ kind: kind as FormDocument["kind"] })}
          />
        )}
      </Setting>
      <Setting label="Filled how" hint={STYLES.find((one) => one.value === style)?.says}>
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            value={style}
            options={STYLES.map(({ value, label }) => ({ value, label }))}
            onChange={(value) => set({ style: value === "whole" ? null : value } as Partial<FormDocument>)}
          />
        )}
      </Setting>
      <TextSetting label="Introduction" value={document.intro} change={(intro) => set({ intro })} lines most={4000} />
      <TextSetting label="Said after it was sent" value={document.thanks} change={(thanks) => set({ thanks })} lines most={4000} />
      <SwitchSetting
        label="Keep what a condition hides"
        value={Boolean(document.keeps_hidden)}
        change={(keeps_hidden) => set({ keeps_hidden })}
        hint="Otherwise what is hidden is not sent and not kept."
      />
      {document.kind === "web" && <PublicSettings document={document} set={set} />}
      <LanguageList document={document} set={set} />
      <WholeTranslations design={design} />
    </>
  );
}
