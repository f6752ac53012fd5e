/** What a rule takes: its kind, and what is set of it. */

import { Select } from "antd";

import { SOURCE_KINDS, type SourceKind, kindOf, withKind } from "../rules";
import { TakesComponents } from "./TakesComponents";
import { TakesFacts } from "./TakesFacts";
import { TakesFit } from "./TakesFit";
import { TakesFormula } from "./TakesFormula";
import { TakesLines } from "./TakesLines";
import { TakesLink } from "./TakesLink";
import type { TakesProps } from "./props";

const EDITORS: Record<SourceKind, (props: TakesProps) => React.ReactNode> = {
  components: TakesComponents,
  facts: TakesFacts,
  lines: TakesLines,
  formula: TakesFormula,
  fit: TakesFit,
  link: TakesLink,
};

export function TakesEditor(props: TakesProps): React.ReactNode {
  const { rule, name, fields, change } = props;
  const kind = kindOf(rule);
  const Editor = EDITORS[kind];
  return (
    <div className="takes">
      <Select
        aria-label={`What ${name} takes`}
        className="takes-kind"
        size="small"
        popupMatchSelectWidth={260}
        value={kind}
        options={Object.entries(SOURCE_KINDS).map(([value, { title, says }]) => ({ value, label: title, says }))}
        optionRender={({ data }) => (
          <>
            <b>{data.label}</b>
            <span className="hint block">{data.says}</span>
          </>
        )}
        onChange={(next: SourceKind) => change(withKind(rule, next, fields[0]?.value ?? ""))}
      />
      <Editor {...props} />
    </div>
  );
}
