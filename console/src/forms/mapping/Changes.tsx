/** The changes of a rule as chips; one with settings shows them when it is chosen. */

import { CloseOutlined } from "@ant-design/icons";
import { Button, Input, InputNumber, Popover, Select } from "antd";
import { useState } from "react";

import { type Change, changeName, changeSettings } from "./rules";
import type { ChangeKind, Setting } from "./useMapping";

type Values = Record<string, unknown>;

export function Changes(props: {
  changes: Change[];
  kinds: Record<string, ChangeKind>;
  name: string;
  change: (changes: Change[]) => void;
}): React.ReactNode {
  const { changes, kinds, name, change } = props;
  return (
    <div className="chips">
      {changes.map((one, at) => {
        const kind = kinds[changeName(one)];
        const title = kind?.title ?? changeName(one);
        const chip = (
          <span key={at} className="chip">
            {kind?.settings.length ? (
              <Popover
                trigger="click"
                title={title}
                content={<ChangeSettings kind={kind} change={one} set={(next) => change(changes.with(at, next))} />}
              >
                <button type="button" className="chip-name">
                  {title} <span className="hint">{said(kind, one)}</span>
                </button>
              </Popover>
            ) : (
              <span className="chip-name">{title}</span>
            )}
            <button type="button" className="chip-remove" aria-label={`Take “${title}” out of ${name}`} onClick={() => change(changes.filter((_, other) => other !== at))}>
              <CloseOutlined aria-hidden />
            </button>
          </span>
        );
        return chip;
      })}
      <Select
        aria-label={`Add a change to ${name}`}
        className="chip-add"
        placeholder={changes.length ? "+ change" : "as it is"}
        value={null}
        popupMatchSelectWidth={320}
        showSearch={{ optionFilterProp: "label" }}
        options={Object.values(kinds).map((kind) => ({ value: kind.name, label: kind.title, help: kind.help }))}
        optionRender={({ data }) => (
          <>
            <b>{data.label}</b>
            <span className="hint block">{data.help}</span>
          </>
        )}
        onChange={(chosen: string | null) => {
          const kind = chosen ? kinds[chosen] : undefined;
          if (kind) change([...changes, begun(kind)]);
        }}
      />
    </div>
  );
}

/** A change as it is first: what has to be given gets something that can stand. */
function begun(kind: ChangeKind): Change {
  const needed = kind.settings.filter((one) => one.default === null);
  if (!needed.length) return kind.name;
  const values = Object.fromEntries(needed.map((one) => [one.name, one.type === "table" ? { "United Kingdom": "UK" } : 3]));
  return written(kind, values);
}

/** As a document has it: a table for itself, else settings by name. */
function written(kind: ChangeKind, values: Values): Change {
  const only = kind.settings[0];
  if (kind.settings.length === 1 && only?.type === "table") return { [kind.name]: values[only.name] } as Change;
  const set = Object.fromEntries(Object.entries(values).filter(([key, value]) => value !== kind.settings.find((one) => one.name === key)?.default));
  return Object.keys(set).length ? ({ [kind.name]: set } as Change) : kind.name;
}

function valuesOf(kind: ChangeKind, change: Change): Values {
  const given = changeSettings(change);
  const defaults = Object.fromEntries(kind.settings.map((one) => [one.name, one.default]));
  const only = kind.settings[0];
  if (given === undefined || !only) return defaults;
  if (kind.settings.length === 1 && only.type === "table") return { [only.name]: given };
  if (typeof given === "object" && given !== null) return { ...defaults, ...given };
  return { ...defaults, [only.name]: given };
}

function said(kind: ChangeKind, change: Change): string {
  const values = valuesOf(kind, change);
  return kind.settings
    .map((one) => {
      const value = values[one.name];
      if (one.type === "table") return Object.entries((value ?? {}) as Record<string, string>).slice(0, 2).map(([from, to]) => `${from} → ${to}`).join(", ");
      if (value === one.default && one.type !== "choice") return "";
      return one.type === "choice" ? (one.options[String(value)] ?? String(value)) : String(value);
    })
    .filter(Boolean)
    .join(", ");
}

function ChangeSettings({ kind, change, set }: { kind: ChangeKind; change: Change; set: (next: Change) => void }): React.ReactNode {
  const values = valuesOf(kind, change);
  return (
    <div className="change-settings">
      <p className="hint">{kind.help}</p>
      {kind.settings.map((one) => (
        <label key={one.name} className="rule-setting">
          {one.title}
          <SettingInput setting={one} value={values[one.name]} set={(value) => set(written(kind, { ...values, [one.name]: value }))} />
        </label>
      ))}
    </div>
  );
}

function SettingInput({ setting, value, set }: { setting: Setting; value: unknown; set: (value: unknown) => void }): React.ReactNode {
  if (setting.type === "count") {
    return <InputNumber min={setting.least} max={setting.most} value={value as number} onChange={(next) => set(next ?? setting.least)} />;
  }
  if (setting.type === "choice") {
    return <Select value={value as string} options={Object.entries(setting.options).map(([one, label]) => ({ value: one, label }))} onChange={set} />;
  }
  if (setting.type === "table") return <Pairs pairs={(value ?? {}) as Record<string, string>} set={set} />;
  return <Input value={value as string} maxLength={60} onChange={(event) => set(event.target.value)} />;
}

function Pairs({ pairs, set }: { pairs: Record<string, string>; set: (pairs: Record<string, string>) => void }): React.ReactNode {
  // While a text is typed it may be the same as another for a moment: its row stays.
  const [typed, setTyped] = useState(() => Object.entries(pairs));
  const rows = JSON.stringify(Object.fromEntries(typed)) === JSON.stringify(pairs) ? typed : Object.entries(pairs);
  const put = (next: [string, string][]): void => {
    setTyped(next);
    set(Object.fromEntries(next));
  };
  const twice = rows.find(([from], at) => rows.findIndex(([other]) => other === from) < at)?.[0];
  return (
    <div className="pairs">
      {rows.map(([from, to], at) => (
        <div key={at} className="pair">
          <Input aria-label={`Text ${at + 1}`} value={from} maxLength={200} onChange={(event) => put(rows.with(at, [event.target.value, to]))} />
          <span aria-hidden>→</span>
          <Input aria-label={`What stands for text ${at + 1}`} value={to} maxLength={200} onChange={(event) => put(rows.with(at, [from, event.target.value]))} />
          <Button type="text" size="small" aria-label={`Remove text ${at + 1}`} disabled={rows.length < 2} icon={<CloseOutlined aria-hidden />} onClick={() => put(rows.filter((_, other) => other !== at))} />
        </div>
      ))}
      {twice !== undefined && <p className="wrong">“{twice}” stands there twice: only the last one counts.</p>}
      <Button size="small" disabled={rows.some(([from]) => !from)} onClick={() => put([...rows, ["", ""]])}>
        Add a text
      </Button>
    </div>
  );
}
