/** Adding something to a form: chosen from a list that can be searched. */

import { Input, type InputRef, Modal } from "antd";
import { useRef, useState } from "react";

import type { Field, FormDocument } from "../../api/schemas";
import { useLayouts } from "../../layouts/layouts";
import { added, newSlot } from "./edits";
import { ADDRESS, useFieldTypes } from "./fieldTypes";
import { keyFrom, keysOf } from "./keys";
import { TYPE_ICONS } from "./typeIcons";

/** Where nothing can be searched yet. */
const FIRST_COUNTRY = "GB";

export function AddDialog(props: {
  document: FormDocument;
  at: number;
  countries: string[] | null;
  close: () => void;
  add: (document: FormDocument, key: string) => void;
}): React.ReactNode {
  const { document, at, countries, close, add } = props;
  const [search, setSearch] = useState("");
  const box = useRef<InputRef>(null);
  const types = [ADDRESS, ...useFieldTypes()];
  const searched = (useLayouts().data ?? []).filter((layout) => layout.has_addresses).map((layout) => layout.country_code);
  const wanted = search.trim().toLowerCase();
  const found = types
    .map((type) => ({ type, rank: rankOf(type, wanted) }))
    .filter(({ rank }) => rank < 3)
    .sort((one, other) => one.rank - other.rank)
    .map(({ type }) => type);
  const choose = (type: { name: string; title: string }): void => {
    const key = keyFrom(type.title, keysOf(document));
    // As the form's first address; without one, those whose addresses can be found.
    add(added(document, newItem(type, key, countries ?? (searched.length ? searched : [FIRST_COUNTRY])), at), key);
  };
  return (
    <Modal
      title="Add to the form"
      open
      onCancel={close}
      footer={null}
      destroyOnHidden
      afterOpenChange={(isOpen) => isOpen && box.current?.focus()}
    >
      <Input
        ref={box}
        allowClear
        aria-label="Search what to add"
        placeholder="Search: date, choice, address …"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
        onPressEnter={() => found[0] && choose(found[0])}
      />
      <ul className="add-list">
        {found.map((type) => {
          const Icon = TYPE_ICONS[type.name];
          return (
            <li key={type.name}>
              <button type="button" onClick={() => choose(type)}>
                {Icon && <Icon aria-hidden />}
                <span>
                  <b>{type.title}</b>
                  <span className="hint">{type.says}</span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      {found.length === 0 && <p role="status">Nothing is called “{search}”.</p>}
    </Modal>
  );
}

/** How well a type is meant by what was typed: called so, called like it, described so, or not at all. */
function rankOf({ title, says }: { title: string; says: string }, wanted: string): number {
  if (title.toLowerCase().startsWith(wanted)) return 0;
  if (title.toLowerCase().includes(wanted)) return 1;
  return says.toLowerCase().includes(wanted) ? 2 : 3;
}

function newItem(type: { name: string; title: string }, key: string, countries: string[]) {
  if (type.name === "slot") return newSlot(key, type.title, countries);
  const field: Field = { key, label: type.title };
  if (type.name !== "text") field.type = type.name;
  if (type.name === "choice" || type.name === "choices") {
    field.options = [{ value: "first", label: "First" }, { value: "second", label: "Second" }];
  }
  if (type.name === "formula") field.formula = '""';
  return field;
}
