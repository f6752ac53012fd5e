/** What is asked for: labels, what must be given, the order; hidden and added ones. */

import { ArrowDownOutlined, ArrowUpOutlined, EyeInvisibleOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Checkbox, Input, Space } from "antd";
import { useState } from "react";

import { AddComponent } from "./AddComponent";
import { arrange, changeComponent, entryFor, forgetComponent, relabel, shifted } from "./changes";
import { problemsAt } from "./problems";
import { Named } from "../../parts/Named";
import { useComponentLabels } from "../layouts";
import type { OwnDocument, Preview, PreviewComponent } from "./schemas";
import { valueAt } from "../../../../embed/src/dictionary";

export function ComponentEditor(props: {
  document: OwnDocument;
  preview: Preview;
  /** The preview is of an earlier state of the document. */
  stale: boolean;
  language: string;
  edit: (next: OwnDocument) => void;
}): React.ReactNode {
  const { document, preview, stale, language, edit } = props;
  const [moved, setMoved] = useState<string[]>([]);
  const answered = preview.components.map((entry) => entry.component);
  // A second move may come before the service has answered the first.
  const order = stale && moved.length === answered.length ? moved : answered;
  const base = preview.base.map((entry) => entry.component);
  const move = (component: string, by: -1 | 1): void => {
    const wanted = shifted(order, component, by);
    setMoved(wanted);
    edit(arrange(document, base, wanted));
  };
  const rows = order.flatMap((name) => preview.components.find((entry) => entry.component === name) ?? []);
  return (
    <>
      <div className="ask-rows" role="list" aria-label="What is asked for, in order">
        {rows.map((entry, at) => (
          <ComponentRow
            key={entry.component}
            entry={entry}
            base={preview.base.find((one) => one.component === entry.component)}
            document={document}
            language={language}
            problems={problemsAt(preview.problems, "ask", entry.change)}
            edit={edit}
            up={at > 0 ? () => move(entry.component, -1) : undefined}
            down={at < order.length - 1 ? () => move(entry.component, 1) : undefined}
          />
        ))}
      </div>
      <Hidden document={document} preview={preview} edit={edit} />
      <AddComponent document={document} present={order} edit={edit} />
    </>
  );
}

function ComponentRow(props: {
  entry: PreviewComponent;
  base: PreviewComponent | undefined;
  document: OwnDocument;
  language: string;
  problems: string[];
  edit: (next: OwnDocument) => void;
  up: (() => void) | undefined;
  down: (() => void) | undefined;
}): React.ReactNode {
  const { entry, base, document, language, edit } = props;
  const { component } = entry;
  const labels = useComponentLabels();
  const change = entryFor(document, component);
  const own = change.label?.[language] ?? "";
  const as = base?.label ?? entry.label;
  return (
    <div role="listitem" className={entry.change === null ? "ask-row" : "ask-row own"}>
      <Named label={valueAt(labels, component)} name={component} />
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
        checked={entry.required}
        aria-label={`${entry.label} must be given`}
        onChange={(event) => {
          const required = event.target.checked;
          edit(changeComponent(document, component, { required: required === (base?.required ?? false) ? null : required }));
        }}
      >
        needed
      </Checkbox>
      <Space.Compact>
        <Button icon={<ArrowUpOutlined />} aria-label={`Move ${entry.label} up`} disabled={!props.up} onClick={props.up} />
        <Button icon={<ArrowDownOutlined />} aria-label={`Move ${entry.label} down`} disabled={!props.down} onClick={props.down} />
        {!base ? (
          <Button icon={<UndoOutlined />} aria-label={`Do not ask for ${entry.label}`} onClick={() => edit(forgetComponent(document, component))} />
        ) : (
          <Button
            icon={<EyeInvisibleOutlined />}
            aria-label={`Hide ${entry.label}`}
            onClick={() => edit(changeComponent(document, component, { hidden: true, label: {}, first: false, after: null, required: null }))}
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
          const needed = preview.base.find((one) => one.component === component)?.required;
          return (
            <li key={component}>
              {preview.hidden.find((one) => one.component === component)?.label ?? component}{" "}
              <Button size="small" onClick={() => edit(forgetComponent(document, component))}>
                Show {preview.hidden.find((one) => one.component === component)?.label ?? component} again
              </Button>
              {needed && !optional && (
                <Button size="small" onClick={() => edit(changeComponent(document, component, { required: false }))}>
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
