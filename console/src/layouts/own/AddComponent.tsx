/** Asking for more: another component, or a line of one's own. */

import { Button, Input, Select } from "antd";
import { useState } from "react";

import { COMPONENTS } from "../../api/vocabulary";
import { changeComponent, extraName, nameOf } from "./changes";
import type { OwnDocument } from "./schemas";

const NEVER = ["country", "country_code"];

export function AddComponent(props: {
  document: OwnDocument;
  present: string[];
  edit: (next: OwnDocument) => void;
}): React.ReactNode {
  const { document, present, edit } = props;
  const [label, setLabel] = useState("");
  const more = COMPONENTS.filter((name) => !present.includes(name) && !NEVER.includes(name));
  const hide = more.filter((name) => !document.ask.some((change) => nameOf(change) === name));
  const addExtra = (): void => {
    const name = extraName(label.trim(), [...COMPONENTS, ...document.ask.map(nameOf)]);
    edit({ ...document, ask: [...document.ask, { extra: name, label: { en: label.trim() } }] });
    setLabel("");
  };
  return (
    <div className="ask-more">
      <Select
        aria-label="Ask for another component"
        placeholder="Ask for another component"
        value={null}
        showSearch
        options={more.map((value) => ({ value, label: value }))}
        onChange={(name: string) => edit(changeComponent(document, name, { add: true, hidden: false }))}
      />
      <Select
        aria-label="Never ask for a component, even if a newer shipped layout does"
        placeholder="Never ask for …"
        value={null}
        showSearch
        options={hide.map((value) => ({ value, label: value }))}
        onChange={(name: string) => edit(changeComponent(document, name, { hidden: true }))}
      />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (label.trim()) addExtra();
        }}
      >
        <Input
          aria-label="Label of a line of your own"
          placeholder="A line of your own: Delivery note"
          maxLength={60}
          value={label}
          onChange={(event) => setLabel(event.target.value)}
        />
        <Button htmlType="submit" disabled={!label.trim()}>
          Add
        </Button>
      </form>
    </div>
  );
}
