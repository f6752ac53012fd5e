/** What went where, after an address was picked or a dry run sent. */

import { Alert, Card } from "antd";

import { fieldsOf } from "../../../embed/src/form/model";
import type { FormDocument, RecordAnswer } from "../api/schemas";
import { useComponentLabels } from "../layouts/layouts";
import { Named } from "../parts/Named";
import { AddressCard } from "../records/AddressCard";
import type { Filled } from "./design/liveForm";
import { Panel } from "../parts/Panel";
import { valueAt } from "../../../embed/src/dictionary";

export function FillTrace({ filled, document }: { filled: Filled; document: FormDocument }): React.ReactNode {
  const labels = useComponentLabels();
  const fields = new Map(fieldsOf(document).map((field) => [field.key, field]));
  const called = (name: string): string => valueAt(labels, name) ?? name;
  const fieldLabel = (key: string): string | undefined => {
    const field = fields.get(key);
    return field?.label || valueAt(labels, field?.component ?? "");
  };
  const { trace, warnings } = filled.answer;
  const silent = trace.filter((step) => step.kind === "nothing");
  const told = trace.filter((step) => !silent.includes(step));
  return (
    <Card
      size="small"
      title={<h2>What went where: {filled.label}</h2>}
    >
      {warnings.map((warning) => (
        <Alert key={warning} type="warning" showIcon title={warning} className="space-below" />
      ))}
      <ol className="trace">
        {told.map((step, index) => (
          <li key={index}>
            <span>{step.components.map(called).join(" + ") || "before"}</span>
            <span aria-hidden>→</span>
            <span>
              <Named label={fieldLabel(step.field)} name={step.field} />: {step.detail}
            </span>
          </li>
        ))}
      </ol>
      {silent.length > 0 && (
        <p className="muted last">
          The address has nothing for: {silent.flatMap((step) => step.components).map(called).join(", ")}.
        </p>
      )}
    </Card>
  );
}

export function DryRunResult({ answer }: { answer: RecordAnswer }): React.ReactNode {
  return (
    <Panel title="What a record would hold">
      <p className="first">{answer.label}</p>
      {Object.entries(answer.slots).map(([slot, address]) => (
        <AddressCard key={slot} slot={slot} address={address} fields={answer.labels} />
      ))}
    </Panel>
  );
}
