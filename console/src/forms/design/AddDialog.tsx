/** Adding something to a form: chosen from a list that can be searched. */

import { Input, Modal } from "antd";
import { useState } from "react";

import type { Field, FormDocument } from "../../api/schemas";
import { added, newSlot } from "./edits";
import { ADDRESS, useFieldTypes } from "./fieldTypes";
import { keyFrom, keysOf } from "./keys";
import { TYPE_ICONS } from "./typeIcons";

/** Where no address is on the form yet: the countries that can be searched, or else this one. */
const FIRST_COUNTRIES = ["GB"];

export function AddDialog(props: {
  document: FormDocument;
  at: number;
  countries: string[] | null;
  close: () => void;
  add: (document: FormDocument, key: string) => void;
}): React.ReactNode {
  const { document, at, countries, close, add } = props;
  const [search, setSearch] = useState("");
  const types = [ADDRESS, ...useFieldTypes()];
  const wanted = search.trim().toLowerCase();
  const found = types.filter((type) => `${type.title} ${type.says}`.toLowerCase().includes(wanted));
  const choose = (type: { name: string; title: string }): void => {
    const key = keyFrom(type.title, keysOf(document));
    add(added(document, newItem(type, key, countries), at), key);
  };
  return (
    <Modal title="Add to the form" open onCancel={close} footer={null} destroyOnHidden>
      <Input
        autoFocus
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

function newItem(type: { name: string; title: string }, key: string, countries: string[] | null) {
  if (type.name === "slot") return newSlot(key, type.title, countries ?? FIRST_COUNTRIES);
  const field: Field = { key, label: type.title };
  if (type.name !== "text") field.type = type.name;
  if (type.name === "choice" || type.name === "choices") {
    field.options = [{ value: "first", label: "First" }, { value: "second", label: "Second" }];
  }
  if (type.name === "formula") field.formula = '""';
  return field;
}
