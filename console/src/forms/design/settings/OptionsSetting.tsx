/** The options of a choice: their labels, in their order; what is kept follows the label. */

import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input } from "antd";
import { useRef } from "react";

import type { Field } from "../../../api/schemas";
import { keyFrom } from "../keys";

type Option = NonNullable<Field["options"]>[number];

export function OptionsSetting({ field, set }: { field: Field; set: (settings: Partial<Field>) => void }): React.ReactNode {
  const options = field.options ?? [];
  const list = useRef<HTMLOListElement>(null);
  const put = (next: Option[]): void => set({ options: next });
  const move = (at: number, by: 1 | -1): void => {
    const option = options[at];
    if (option) put(options.toSpliced(at, 1).toSpliced(at + by, 0, option));
  };
  const add = (): void => {
    const taken = new Set(options.map((option) => option.value));
    const label = `Option ${options.length + 1}`;
    put([...options, { value: keyFrom(label, taken), label }]);
    setTimeout(() => list.current?.querySelector<HTMLInputElement>("li:last-child input")?.select());
  };
  const written = (at: number): void => {
    const option = options[at];
    // A value that was made by itself follows the label, once that is written.
    if (!option?.label || !/^(option_\d+|first|second)$/.test(option.value)) return;
    const taken = new Set(options.filter((_, other) => other !== at).map((one) => one.value));
    const value = keyFrom(option.label, taken, "option");
    if (value !== option.value) put(options.with(at, { ...option, value }));
  };
  return (
    <fieldset className="setting options">
      <legend>Options</legend>
      <ol ref={list}>
        {options.map((option, at) => (
          <li key={at}>
            <Input
              aria-label={`Option ${at + 1}`}
              value={option.label ?? option.value}
              maxLength={200}
              onChange={(event) => put(options.with(at, { ...option, label: event.target.value }))}
              onBlur={() => written(at)}
              onPressEnter={add}
            />
            <Button size="small" type="text" aria-label={`Move option ${at + 1} up`} disabled={at === 0} icon={<ArrowUpOutlined aria-hidden />} onClick={() => move(at, -1)} />
            <Button size="small" type="text" aria-label={`Move option ${at + 1} down`} disabled={at === options.length - 1} icon={<ArrowDownOutlined aria-hidden />} onClick={() => move(at, 1)} />
            <Button size="small" type="text" danger aria-label={`Remove option ${at + 1}`} icon={<DeleteOutlined aria-hidden />} onClick={() => put(options.toSpliced(at, 1))} />
            <span className="key small">{option.value}</span>
          </li>
        ))}
      </ol>
      <Button size="small" icon={<PlusOutlined aria-hidden />} onClick={add}>
        Add an option
      </Button>
    </fieldset>
  );
}
