/** Tabs that wrap where there is little room, as the WAI-ARIA pattern for tabs has them. */

import { useId, useRef } from "react";

export interface Tab {
  key: string;
  label: string;
  content: React.ReactNode;
}

export function WorkbenchTabs(props: { tabs: Tab[]; name: string; chosen: string; choose: (key: string) => void }): React.ReactNode {
  const { tabs, name, chosen, choose } = props;
  const list = useRef<HTMLDivElement>(null);
  const id = useId();
  const shown = tabs.find((one) => one.key === chosen) ?? tabs[0];
  const go = (event: React.KeyboardEvent): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by || !shown) return;
    event.preventDefault();
    const at = (tabs.indexOf(shown) + by + tabs.length) % tabs.length;
    const next = tabs[at];
    if (next) choose(next.key);
    list.current?.querySelectorAll("button")[at]?.focus();
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
            onClick={() => choose(one.key)}
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
