/** Which records a link can be set to, and what is shown of them. */

import { useQuery } from "@tanstack/react-query";
import { Alert, Select } from "antd";

import { call } from "../../../api/call";
import type { Draft, Field, FormDocument } from "../../../api/schemas";
import { useForms } from "../../useForms";
import { isSlot, itemsOf, nameOf } from "../edits";
import { Setting } from "./Setting";
import { SwitchSetting } from "./SwitchSetting";

export function LinkSettings(props: {
  field: Field;
  document: FormDocument;
  set: (settings: Partial<Field>) => void;
}): React.ReactNode {
  const { field, document, set } = props;
  const forms = useForms().data?.forms ?? [];
  const linked = useQuery({
    queryKey: ["linked-form", field.form],
    queryFn: () => call<Draft>(`forms/${field.form ?? ""}/draft`),
    enabled: Boolean(field.form),
  });
  const shown = linked.data ? itemsOf(linked.data.document).filter((item) => !isSlot(item) && item.type !== "page" && item.type !== "section") : [];
  return (
    <>
      <Setting label="Records of">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            placeholder="Choose a form"
            value={field.form ?? null}
            options={forms.filter((form) => form.key !== document.key).map((form) => ({ value: form.key, label: form.title }))}
            onChange={(form) => set({ form, shows: null, searches: [] })}
          />
        )}
      </Setting>
      <Setting label="Found by" hint="Nothing else of the records can be seen here.">
        {(id) => (
          <Select
            id={id}
            allowClear
            className="whole-width"
            placeholder="what lists show of them"
            value={field.shows ?? null}
            options={shown.map((item) => ({ value: item.key, label: nameOf(item) }))}
            onChange={(shows: string | undefined) => set({ shows: shows ?? null })}
          />
        )}
      </Setting>
      <Setting label="Searched as well" hint="Shown behind it.">
        {(id) => (
          <Select
            id={id}
            mode="multiple"
            className="whole-width"
            value={field.searches ?? []}
            options={shown.filter((item) => item.key !== field.shows).map((item) => ({ value: item.key, label: nameOf(item) }))}
            onChange={(searches) => set({ searches: searches.slice(0, 5) })}
          />
        )}
      </Setting>
      <SwitchSetting label="Staff can make a new one here" value={Boolean(field.makes_new)} change={(makes_new) => set({ makes_new })} />
      {document.kind === "web" && (
        <SwitchSetting label="Anyone may look records up" value={Boolean(field.open_to_all)} change={(open_to_all) => set({ open_to_all })} hint="Otherwise only staff can set this link." />
      )}
      {document.kind === "web" && field.form && field.open_to_all && (
        <Alert
          type="warning"
          showIcon
          className="space-below"
          title={`Anyone who fills this form can look up ${field.shows ? "this of" : "what lists show of"} all records of that form.`}
        />
      )}
    </>
  );
}
