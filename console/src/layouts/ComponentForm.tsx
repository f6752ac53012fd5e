/** The fields that a layout asks for, in its order, to be tried out. */

import { Input, Select } from "antd";

import type { LayoutComponent } from "../../../embed/src/form/model";
import { type Components, type Layout, useCheck } from "./layouts";
import { valueAt } from "../../../embed/src/dictionary";

const RECIPIENT: LayoutComponent = { component: "recipient", label: "Recipient", required: false, options: null };

export function ComponentForm(props: {
  layout: Layout;
  form: string;
  components: Components;
  given: Components;
  change: (components: Components) => void;
}): React.ReactNode {
  const { layout, components, change } = props;
  const checked = useCheck(layout.country_code, props.form, props.given);
  const problems = new Map(checked.data?.problems.map((problem) => [problem.component, problem.detail]));
  const spelt = checked.data?.components ?? {};
  return (
    <div className="components">
      {[RECIPIENT, ...layout.components].map((entry) => {
        const id = `component-${entry.component}`;
        const value = valueAt(components, entry.component) ?? "";
        const problem = problems.get(entry.component);
        const canonical = entry.component === "postcode" && value && !problem ? spelt.postcode : undefined;
        const set = (text: string): void => change({ ...components, [entry.component]: text });
        return (
          <div key={entry.component}>
            <label htmlFor={id}>
              {entry.label} {entry.required && <span className="hint">(needed)</span>}
            </label>
            <Choice entry={entry} id={id} value={value} set={set} problem={problem} />
            <div className="hint" id={`${id}-said`}>
              {problem && <span className="wrong">{problem}</span>}
              {canonical && canonical !== value && <>Written as {canonical}</>}
            </div>
          </div>
        );
      })}
    </div>
  );
}

function Choice(props: {
  entry: LayoutComponent;
  id: string;
  value: string;
  problem: string | undefined;
  set: (text: string) => void;
}): React.ReactNode {
  const { entry, id, value, problem, set } = props;
  const shared = { id, status: problem ? ("error" as const) : ("" as const), "aria-describedby": `${id}-said` };
  if (!entry.options) {
    return <Input {...shared} dir="auto" value={value} onChange={(event) => set(event.target.value)} />;
  }
  const byCode = entry.component === "region_code";
  return (
    <Select
      {...shared}
      showSearch={{ optionFilterProp: "label" }}
      allowClear
      value={value || null}
      onChange={(chosen: string | undefined) => set(chosen ?? "")}
      options={entry.options.map((option) => ({
        value: byCode ? option.code : option.latin,
        label: option.name === option.latin ? option.name : `${option.latin} · ${option.name}`,
      }))}
      className="whole-width"
    />
  );
}
