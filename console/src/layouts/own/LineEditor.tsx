/** The lines that are written, in their notation: changed, dropped, added to. */

import { DeleteOutlined, PlusOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Dropdown, Input, Space } from "antd";
import { useEffect, useRef, useState } from "react";

import { COMPONENTS } from "../../api/vocabulary";
import { addLine, currentRows, dropLine, nameOf, restoreLine, rewriteLine } from "./changes";
import { problemsAt } from "./problems";
import type { OwnDocument, Preview, PreviewLine } from "./schemas";

const SCRIPTS = new Intl.DisplayNames(["en"], { type: "script" });

export function LineEditor(props: {
  document: OwnDocument;
  preview: Preview;
  edit: (next: OwnDocument) => void;
}): React.ReactNode {
  const scripts = Object.keys(props.preview.lines);
  return scripts.map((script) => (
    <div key={script}>
      {scripts.length > 1 && (
        <h3 className="script">{script ? `In ${SCRIPTS.of(script) ?? script} script` : "In Latin script"}</h3>
      )}
      <LinesOfScript {...props} script={script} />
    </div>
  ));
}

function LinesOfScript(props: {
  document: OwnDocument;
  preview: Preview;
  script: string;
  edit: (next: OwnDocument) => void;
}): React.ReactNode {
  const { document, preview, script, edit } = props;
  const before = useRef<PreviewLine[]>([]);
  const rows = currentRows(preview.lines[script] ?? [], before.current, document.lines, script);
  useEffect(() => {
    before.current = rows;
  });
  const extras = document.ask.flatMap((change) => (change.extra ? [nameOf(change)] : []));
  const add = (name: string, after: string | null): void => edit(addLine(document, name, after, script));
  return (
    <ol className="line-rows">
      {rows.map((row, at) => (
        <LineRow
          key={row.was ?? `added-${row.change}`}
          row={row}
          number={at + 1}
          problems={problemsAt(preview.problems, "lines", row.change)}
          names={[...extras, ...COMPONENTS]}
          write={(text) => edit(rewriteLine(document, row, script, text))}
          drop={() => edit(dropLine(document, row, script))}
          restore={() => edit(restoreLine(document, row, script))}
          addBelow={(name) => add(name, row.line)}
          addAbove={at === 0 ? (name) => add(name, null) : undefined}
        />
      ))}
    </ol>
  );
}

function LineRow(props: {
  row: PreviewLine;
  number: number;
  problems: string[];
  names: readonly string[];
  write: (text: string) => void;
  drop: () => void;
  restore: () => void;
  addBelow: (name: string) => void;
  addAbove: ((name: string) => void) | undefined;
}): React.ReactNode {
  const { row, number, problems, names } = props;
  const changed = row.change !== null && row.was !== null;
  const below = names.map((name) => ({ key: name, label: `Below: ${name}` }));
  const above = props.addAbove ? names.map((name) => ({ key: `^${name}`, label: `Above: ${name}` })) : [];
  return (
    <li className={row.change === null ? "" : "own"}>
      <div className="line-row">
        {row.dropped ? (
          <del>
            <code>{row.line}</code>
          </del>
        ) : (
          <LineText row={row} number={number} wrong={problems.length > 0} write={props.write} />
        )}
        <Space.Compact>
          {changed && (
            <Button icon={<UndoOutlined />} aria-label={`Line ${number} as it was: ${row.was}`} onClick={props.restore} />
          )}
          {!row.dropped && (
            <>
              <Dropdown
                trigger={["click"]}
                menu={{
                  items: [...below, ...above],
                  onClick: ({ key }) => (key.startsWith("^") ? props.addAbove?.(key.slice(1)) : props.addBelow(key)),
                  style: { maxHeight: "18rem", overflowY: "auto" },
                }}
              >
                <Button icon={<PlusOutlined />} aria-label={`Add a line at line ${number}`} />
              </Dropdown>
              <Button icon={<DeleteOutlined />} aria-label={`Do not write line ${number}`} onClick={props.drop} />
            </>
          )}
        </Space.Compact>
      </div>
      {changed && !row.dropped && <div className="hint">was {row.was}</div>}
      {problems.map((detail) => (
        <p key={detail} className="wrong" role="alert">
          {detail}
        </p>
      ))}
    </li>
  );
}

/** The text as it is typed: the service may answer later, and must not take letters away. */
function LineText(props: {
  row: PreviewLine;
  number: number;
  wrong: boolean;
  write: (text: string) => void;
}): React.ReactNode {
  const { row, number, wrong, write } = props;
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Input
      aria-label={`Line ${number}`}
      className="notation-input"
      maxLength={200}
      spellCheck={false}
      status={wrong ? "error" : ""}
      value={typed ?? row.line}
      onChange={(event) => {
        setTyped(event.target.value);
        if (event.target.value.trim()) write(event.target.value.trim());
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
