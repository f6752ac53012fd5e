/** Components as chips: typed, chosen, moved by drag or with Alt and an arrow key. */

import { CloseOutlined } from "@ant-design/icons";
import { AutoComplete, Input } from "antd";
import { useRef, useState } from "react";

import { COMPONENTS } from "../../../api/vocabulary";
import { JoinInput } from "../JoinInput";
import { type Part, partName, partOf } from "../rules";
import type { TakesProps } from "./props";
import { valueAt } from "../../../../../embed/src/dictionary";

export function TakesComponents({ rule, name, labels, change }: TakesProps): React.ReactNode {
  const parts = rule.components ?? [];
  const put = (components: Part[]): void => change({ ...rule, components });
  const [dragged, setDragged] = useState<number | null>(null);
  const move = (from: number, to: number): void => {
    const part = parts[from];
    if (part === undefined || to < 0 || to >= parts.length) return;
    const without = parts.filter((_, at) => at !== from);
    put([...without.slice(0, to), part, ...without.slice(to)]);
  };
  return (
    <>
      <ul className="chips" aria-label={`Parts of ${name}`}>
        {parts.map((part, at) => {
          const called = partName(part, labels);
          return (
            <li
              key={at}
              className={`chip ${typeof part === "string" ? "" : "group"} ${isKnown(part) ? "" : "unknown"}`}
              draggable
              onDragStart={() => setDragged(at)}
              onDragOver={(event) => event.preventDefault()}
              onDrop={() => dragged !== null && move(dragged, at)}
            >
              <button
                type="button"
                className="chip-name"
                title="Alt with an arrow key moves it"
                onKeyDown={(event) => {
                  if (!event.altKey || !["ArrowLeft", "ArrowRight"].includes(event.key)) return;
                  event.preventDefault();
                  move(at, at + (event.key === "ArrowLeft" ? -1 : 1));
                }}
              >
                {called}
              </button>
              <button type="button" className="chip-remove" aria-label={`Take ${called} out of ${name}`} onClick={() => put(parts.filter((_, other) => other !== at))}>
                <CloseOutlined aria-hidden />
              </button>
            </li>
          );
        })}
        <li>
          <AddPart name={name} labels={labels} add={(part) => put([...parts, part])} />
        </li>
      </ul>
      {parts.length > 1 && <JoinInput rule={rule} of={`the parts of ${name}`} change={change} />}
    </>
  );
}

function isKnown(part: Part): boolean {
  return typeof part === "string" ? COMPONENTS.includes(part) : part.components.every((one) => isKnown(one));
}

function AddPart({ name, labels, add }: { name: string; labels: Record<string, string>; add: (part: Part) => void }): React.ReactNode {
  const [typed, setTyped] = useState("");
  // Whether an arrow key has chosen an entry of the list, which Enter then takes.
  const isInList = useRef(false);
  const options = COMPONENTS.map((value) => ({ value, label: valueAt(labels, value) ?? value })).filter(({ value, label }) =>
    `${label} ${value}`.toLowerCase().includes(typed.toLowerCase()),
  );
  const take = (text: string): void => {
    const word = text.trim();
    setTyped("");
    if (!word) return;
    const called = Object.entries(labels).find(([, label]) => label.toLowerCase() === word.toLowerCase());
    add(called ? called[0] : partOf(word));
  };
  return (
    <AutoComplete
      className="chip-type"
      value={typed}
      options={options}
      popupMatchSelectWidth={220}
      defaultActiveFirstOption={false}
      onSelect={(value: string) => take(value)}
      onChange={(text: string) => setTyped(text)}
      onInputKeyDown={(event) => {
        if (event.key.startsWith("Arrow")) isInList.current = true;
        else if (event.key !== "Enter") isInList.current = false;
        if (event.key === "Enter" && typed && !isInList.current) {
          event.preventDefault();
          take(typed);
        }
      }}
    >
      <Input size="small" aria-label={`Add a part to ${name}; several words are a group`} placeholder="+ part" />
    </AutoComplete>
  );
}
