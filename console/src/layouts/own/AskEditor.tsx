/** What is asked for: labels, what must be given, the order; hidden and added ones. */

import { ArrowDownOutlined, ArrowUpOutlined, EyeInvisibleOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Checkbox, Input, Space } from "antd";
import { useState } from "react";

import { AddAsked } from "./AddAsked";
import { arrange, changeAsked, entryFor, forgetAsked, relabel, shifted } from "./changes";
import { problemsAt } from "./problems";
import { Named } from "../../parts/Named";
import { useComponentLabels } from "../layouts";
import type { OwnDocument, Preview, PreviewAsked } from "./shapes";

export function AskEditor(props: {
  document: OwnDocument;
  preview: Preview;
  /** The preview is of an earlier state of the document. */
  stale: boolean;
  language: string;
  edit: (next: OwnDocument) => void;
}): React.ReactNode {
  const { document, preview, stale, language, edit } = props;
  const [moved, setMoved] = useState<string[]>([]);
  const answered = preview.asked.map((asked) => asked.component);
  // A second move may come before the service has answered the first.
  const order = stale && moved.length === answered.length ? moved : answered;
  const below = preview.below.map((asked) => asked.component);
  const move = (component: string, by: -1 | 1): void => {
    const wanted = shifted(order, component, by);
    setMoved(wanted);
    edit(arrange(document, below, wanted));
  };
  const rows = order.flatMap((name) => preview.asked.find((asked) => asked.component === name) ?? []);
  return (
    <>
      <div className="ask-rows" role="list" aria-label="What is asked for, in order">
        {rows.map((asked, at) => (
          <AskedRow
            key={asked.component}
            asked={asked}
            below={preview.below.find((one) => one.component === asked.component)}
            document={document}
            language={language}
            problems={problemsAt(preview.problems, "ask", asked.change)}
            edit={edit}
            up={at > 0 ? () => move(asked.component, -1) : undefined}
            down={at < order.length - 1 ? () => move(asked.component, 1) : undefined}
          />
        ))}
      </div>
      <Hidden document={document} preview={preview} edit={edit} />
      <AddAsked document={document} asked={order} edit={edit} />
    </>
  );
}

function AskedRow(props: {
  asked: PreviewAsked;
  below: PreviewAsked | undefined;
  document: OwnDocument;
  language: string;
  problems: string[];
  edit: (next: OwnDocument) => void;
  up: (() => void) | undefined;
  down: (() => void) | undefined;
}): React.ReactNode {
  const { asked, below, document, language, edit } = props;
  const { component } = asked;
  const labels = useComponentLabels();
  const entry = entryFor(document, component);
  const own = entry.label?.[language] ?? "";
  const as = below?.label ?? asked.label;
  return (
    <div role="listitem" className={asked.change === null ? "ask-row" : "ask-row own"}>
      <Named label={labels[component]} name={component} />
      <Input
        aria-label={`Label of ${component}`}
        dir="auto"
        maxLength={200}
        value={own}
        placeholder={as}
        status={props.problems.length ? "error" : ""}
        onChange={(event) => edit(relabel(document, component, language, event.target.value))}
      />
      <Checkbox
        checked={asked.required}
        aria-label={`${asked.label} must be given`}
        onChange={(event) => {
          const required = event.target.checked;
          edit(changeAsked(document, component, { required: required === (below?.required ?? false) ? null : required }));
        }}
      >
        needed
      </Checkbox>
      <Space.Compact>
        <Button icon={<ArrowUpOutlined />} aria-label={`Move ${asked.label} up`} disabled={!props.up} onClick={props.up} />
        <Button icon={<ArrowDownOutlined />} aria-label={`Move ${asked.label} down`} disabled={!props.down} onClick={props.down} />
        {!below ? (
          <Button icon={<UndoOutlined />} aria-label={`Do not ask for ${asked.label}`} onClick={() => edit(forgetAsked(document, component))} />
        ) : (
          <Button
            icon={<EyeInvisibleOutlined />}
            aria-label={`Hide ${asked.label}`}
            onClick={() => edit(changeAsked(document, component, { hidden: true, label: {}, first: false, after: null, required: null }))}
          />
        )}
      </Space.Compact>
      <Problems problems={props.problems} />
    </div>
  );
}

function Hidden(props: { document: OwnDocument; preview: Preview; edit: (next: OwnDocument) => void }): React.ReactNode {
  const { document, preview, edit } = props;
  const hidden = document.ask.flatMap((change, index) =>
    change.hidden && change.component ? [{ component: change.component, index, optional: change.required === false }] : [],
  );
  if (!hidden.length) return null;
  return (
    <div className="hidden-ones">
      <h3>Hidden</h3>
      <ul>
        {hidden.map(({ component, index, optional }) => {
          const problems = problemsAt(preview.problems, "ask", index);
          const needed = preview.below.find((one) => one.component === component)?.required;
          return (
            <li key={component}>
              {preview.hidden.find((one) => one.component === component)?.label ?? component}{" "}
              <Button size="small" onClick={() => edit(forgetAsked(document, component))}>
                Show {preview.hidden.find((one) => one.component === component)?.label ?? component} again
              </Button>
              {needed && !optional && (
                <Button size="small" onClick={() => edit(changeAsked(document, component, { required: false }))}>
                  It may be left out
                </Button>
              )}
              <Problems problems={problems} />
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function Problems({ problems }: { problems: string[] }): React.ReactNode {
  return problems.map((detail) => (
    <p key={detail} className="wrong" role="alert">
      {detail}
    </p>
  ));
}
