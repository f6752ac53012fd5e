/** An address as it is asked for and written without the layout, beside how it is with it. */

import { Input, Select } from "antd";

import type { Components } from "../layouts";
import { type Preview, type PreviewComponent, type Sample } from "./schemas";
import { Panel } from "../../parts/Panel";
import { valueAt } from "../../../../embed/src/dictionary";

export function SideBySide(props: {
  preview: Preview;
  components: Components;
  change: (components: Components) => void;
}): React.ReactNode {
  const { preview, components, change } = props;
  return (
    <div className="compared">
      <Side title="Without this layout" entries={preview.base} lines={preview.written_base} components={components} change={change} id="now" />
      <Side title="With this layout" entries={preview.components} lines={preview.written} components={components} change={change} id="then" />
    </div>
  );
}

function Side(props: {
  title: string;
  id: string;
  entries: PreviewComponent[];
  lines: string[];
  components: Components;
  change: (components: Components) => void;
}): React.ReactNode {
  const { title, id, entries, lines, components, change } = props;
  return (
    <Panel title={title} level={3}>
      <div className="one-column">
        {entries.map(({ component, label, required, change: changed }) => (
          <div key={component} className={changed === null ? "" : "own"}>
            <label htmlFor={`${id}-${component}`}>
              {label} {required && <span className="hint">(needed)</span>}
            </label>
            <Input
              id={`${id}-${component}`}
              size="small"
              dir="auto"
              value={valueAt(components, component) ?? ""}
              onChange={(event) => change({ ...components, [component]: event.target.value })}
            />
          </div>
        ))}
      </div>
      <h4>Written</h4>
      {lines.length ? (
        <address className="lines" dir="auto">
          {lines.join("\n")}
        </address>
      ) : (
        <p className="hint">Nothing: no component that the lines name is given.</p>
      )}
    </Panel>
  );
}

/** Which address is tried: made up, of a record, or of the reference data. */
export function SampleChoice(props: {
  samples: Sample[];
  choose: (sample: Sample | null) => void;
}): React.ReactNode {
  const { samples, choose } = props;
  const entry = (sample: Sample, index: number): { value: number; label: string } => ({ value: index, label: sample.label });
  const all = samples.map(entry);
  const groups = [
    { label: "From records", options: all.filter((_, index) => samples[index]?.record) },
    { label: "From the reference data", options: all.filter((_, index) => !samples[index]?.record) },
  ].filter((group) => group.options.length > 0);
  return (
    <Select
      aria-label="Address to try"
      defaultValue={-1}
      className="address-choice"
      popupMatchSelectWidth={false}
      options={[{ value: -1, label: "A made-up address" }, ...groups]}
      onChange={(index: number) => choose(samples[index] ?? null)}
    />
  );
}
