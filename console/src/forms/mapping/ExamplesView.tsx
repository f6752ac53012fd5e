/** Examples: addresses with what must come out, run at every publish. */

import { Button, Empty, Popconfirm } from "antd";

import type { Slot } from "../../api/schemas";
import type { Mapped } from "./place";
import { withAt } from "./pointers";
import type { Finding } from "./useMapping";

export function ExamplesView(props: { slot: Slot; set: (settings: Partial<Slot>) => void; findings: Finding[]; hasRun: boolean; design: Mapped }): React.ReactNode {
  const { slot, set, findings, hasRun, design } = props;
  const examples = slot.examples ?? [];
  if (!examples.length) {
    return <Empty description="No examples yet. Try an address and keep it: then every publish runs it, and one that fails stands against publishing." />;
  }
  const take = (failing: Finding[]): void => {
    const document = failing.reduce((whole, one) => withAt(whole, one.pointer, one.offers[0] ?? ""), design.document);
    design.edit(document, `${slot.key} examples`);
  };
  return (
    <ul className="examples">
      {examples.map((example, at) => {
        const failing = findings.filter((one) => one.pointer.includes(`/examples/${at}/`));
        return (
          <li key={example.name} className={failing.length ? "fails" : hasRun ? "holds" : ""}>
            <div className="example-head">
              <b>{example.name}</b>
              <span className="example-state">{failing.length ? "fails" : hasRun ? "holds" : "not run yet"}</span>
              {failing.length > 0 && (
                <Button size="small" onClick={() => take(failing)}>
                  Take what stands there now
                </Button>
              )}
              <Popconfirm
                title={`Remove the example “${example.name}”?`}
                okText="Remove"
                onConfirm={() => set({ examples: examples.filter((_, other) => other !== at) })}
              >
                <Button size="small" danger type="text">
                  Remove
                </Button>
              </Popconfirm>
            </div>
            {failing.map((one) => (
              <p key={one.pointer} className="wrong">
                {one.detail}
              </p>
            ))}
            <p className="hint last">{Object.values(example.components).filter(Boolean).join(", ")}</p>
          </li>
        );
      })}
    </ul>
  );
}
