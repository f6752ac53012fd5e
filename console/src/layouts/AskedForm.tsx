/** The fields that a layout asks for, in its order, to be tried out. */

import { Input, Select } from "antd";

import type { Asked } from "../../../embed/src/form/model";
import { type Components, type Layout, useCheck } from "./layouts";

const RECIPIENT: Asked = { component: "recipient", label: "Recipient", required: false, options: null };

export function AskedForm(props: {
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
    <div className="asked">
      {[RECIPIENT, ...layout.components].map((asked) => {
        const id = `asked-${asked.component}`;
        const value = components[asked.component] ?? "";
        const problem = problems.get(asked.component);
        const canonical = asked.component === "postcode" && value && !problem ? spelt.postcode : undefined;
        const set = (text: string): void => change({ ...components, [asked.component]: text });
        return (
          <div key={asked.component}>
            <label htmlFor={id}>
              {asked.label} {asked.required && <span className="hint">(needed)</span>}
            </label>
            <Choice asked={asked} id={id} value={value} set={set} problem={problem} />
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
  asked: Asked;
  id: string;
  value: string;
  problem: string | undefined;
  set: (text: string) => void;
}): React.ReactNode {
  const { asked, id, value, problem, set } = props;
  const shared = { id, status: problem ? ("error" as const) : ("" as const), "aria-describedby": `${id}-said` };
  if (!asked.options) {
    return <Input {...shared} dir="auto" value={value} onChange={(event) => set(event.target.value)} />;
  }
  const byCode = asked.component === "region_code";
  return (
    <Select
      {...shared}
      showSearch={{ optionFilterProp: "label" }}
      allowClear
      value={value || null}
      onChange={(chosen: string | undefined) => set(chosen ?? "")}
      options={asked.options.map((option) => ({
        value: byCode ? option.code : option.latin,
        label: option.name === option.latin ? option.name : `${option.latin} · ${option.name}`,
      }))}
      style={{ width: "100%" }}
    />
  );
}
