/** Tabs that wrap where there is little room, as the WAI-ARIA pattern for tabs has them. */

import { useId, useRef, useState } from "react";

export interface Tab {
  key: string;
  label: string;
  content: React.ReactNode;
}

export function WorkbenchTabs({ tabs, name }: { tabs: Tab[]; name: string }): React.ReactNode {
  const [chosen, setChosen] = useState(tabs[0]?.key);
  const list = useRef<HTMLDivElement>(null);
  const id = useId();
  const shown = tabs.find((one) => one.key === chosen) ?? tabs[0];
  const go = (event: React.KeyboardEvent): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by || !shown) return;
    event.preventDefault();
    const next = (tabs.indexOf(shown) + by + tabs.length) % tabs.length;
    setChosen(tabs[next]?.key);
    list.current?.querySelectorAll("button")[next]?.focus();
  };
  return (
    <>
      <div className="workbench-tabs" role="tablist" aria-label={name} ref={list} onKeyDown={go}>
        {tabs.map((one) => (
          <button
            key={one.key}
            type="button"
            role="tab"
            id={`${id}-${one.key}`}
            aria-selected={one === shown}
            aria-controls={`${id}-panel`}
            tabIndex={one === shown ? 0 : -1}
            onClick={() => setChosen(one.key)}
          >
            {one.label}
          </button>
        ))}
      </div>
      <div role="tabpanel" id={`${id}-panel`} aria-labelledby={`${id}-${shown?.key}`}>
        {shown?.content}
      </div>
    </>
  );
}
