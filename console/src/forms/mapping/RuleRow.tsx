/** One rule: what it takes, how that is changed, where it goes, and what comes of it. */

import { DeleteOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";

import { ruleFills } from "../../../../embed/src/form/rule-fills";
import type { FillAnswer, Rule } from "../../api/schemas";
import { MovableRow } from "../../parts/MovableList";
import { Named } from "../../parts/Named";
import type { Mapped } from "./place";
import { Changes } from "./Changes";
import { Findings } from "./Findings";
import { RuleConditions } from "./RuleConditions";
import { TakesEditor } from "./takes/TakesEditor";
import { type FieldChoice, hasText } from "./fields";
import { WRITES } from "./rules";
import type { ChangeKind, Finding } from "./useMapping";
import { valueAt } from "../../../../embed/src/dictionary";

export interface RuleRowProps {
  rule: Rule;
  at: number;
  count: number;
  fields: FieldChoice[];
  labels: Record<string, string>;
  kinds: Record<string, ChangeKind>;
  answer: FillAnswer | undefined;
  findings: Finding[];
  design: Mapped;
  change: (rule: Rule) => void;
  move: (from: number, to: number) => void;
  remove: () => void;
}

export function RuleRow(props: RuleRowProps): React.ReactNode {
  const { rule, at, fields, labels, kinds, answer, findings, design, change, move, remove } = props;
  const name = `rule ${at + 1}`;
  return (
    <MovableRow at={at} name={name} className="rule-row" move={move}>
      <div className="rule-cell">
        <span className="rule-title">From</span>
        <TakesEditor rule={rule} name={name} fields={fields} labels={labels} change={change} />
      </div>
      <div className="rule-cell">
        <span className="rule-title">Changed</span>
        <Changes changes={rule.changes ?? []} kinds={kinds} name={name} change={(changes) => change({ ...rule, changes })} />
      </div>
      <div className="rule-cell">
        <span className="rule-title">Into</span>
        {rule.fit ? (
          <ul className="plain">
            {rule.fit.into.map((key) => (
              <li key={key}>{fields.find((one) => one.value === key)?.label ?? key}</li>
            ))}
          </ul>
        ) : (
          <Select
            showSearch={{ filterOption: hasText }}
            optionRender={({ value, label }) => <Named label={String(label)} name={String(value)} />}
            popupMatchSelectWidth={false}
            aria-label={`Field of ${name}`}
            className="whole-width"
            value={rule.into ?? null}
            options={fields}
            onChange={(into) => change({ ...rule, into })}
          />
        )}
        <RuleConditions rule={rule} at={at} name={name} change={change} />
      </div>
      <div className="rule-cell rule-result">
        <span className="rule-title">Comes to</span>
        <Results rule={rule} at={at} answer={answer} />
      </div>
      <Button type="text" size="small" danger className="rule-remove" aria-label={`Remove ${name}`} icon={<DeleteOutlined aria-hidden />} onClick={remove} />
      {findings.length > 0 && (
        <div className="rule-findings">
          <Findings findings={findings} design={design} />
        </div>
      )}
    </MovableRow>
  );
}

/** What a rule makes of the sample, or why nothing. */
function Results({ rule, at, answer }: { rule: Rule; at: number; answer: FillAnswer | undefined }): React.ReactNode {
  if (!answer) return <span className="hint">…</span>;
  const steps = answer.trace.filter((step) => step.rule === at);
  const written = ruleFills(rule).flatMap((key) => {
    const step = steps.find((one) => one.field === key && WRITES.has(one.kind));
    return step ? [{ key, text: valueAt(answer.labels, key) || step.text }] : [];
  });
  const notes = steps.filter((step) => ["shortened", "lost", "noted", "too_long", "left", "not_linked", "made", "looked_up_later"].includes(step.kind));
  const why = steps.find((step) => ["nothing", "skipped"].includes(step.kind));
  const isSilent = !written.length && !notes.length && !why;
  return (
    <>
      {written.map(({ key, text }) => (
        <bdi key={key} className="result-text">
          {text}
        </bdi>
      ))}
      {!written.length && why && <span className="hint">{why.detail.replace(/^nothing to write: /, "")}</span>}
      {isSilent && <span className="hint">…</span>}
      {notes.map((step, n) => (
        <span key={n} className="result-note">
          {step.detail}
        </span>
      ))}
    </>
  );
}
