/** The rows of a search, with what each of them is worth. */

import { Button, Table, Tag } from "antd";

import type { SearchAnswer, Suggestion } from "./search";

export function FoundTable({ answer, open }: { answer: SearchAnswer; open: (id: string) => void }): React.ReactNode {
  const worth = new Map(answer.trace?.rows.map((row) => [row.id, row]));
  return (
    <Table<Suggestion>
      rowKey="id"
      size="small"
      dataSource={answer.suggestions}
      pagination={false}
      scroll={{ x: true }}
      columns={[
        {
          title: "Row",
          render: (_, row) => (
            <>
              <span dir="auto">
                <Marked label={row.label} matches={row.matches} />
              </span>
              <div className="key">{row.id}</div>
            </>
          ),
        },
        { title: "Kind", render: (_, row) => <Tag>{row.kind}</Tag> },
        {
          title: "Addresses",
          align: "right",
          render: (_, row) =>
            row.count === 1 ? (
              "1"
            ) : (
              <Button size="small" type="link" aria-label={`${row.count.toLocaleString("en")}: open ${row.label}`} onClick={() => open(row.id)}>
                {row.count.toLocaleString("en")}
              </Button>
            ),
        },
        {
          title: "Worth",
          align: "right",
          render: (_, row) => worth.get(row.id)?.score.toFixed(2) ?? "–",
        },
        {
          title: "Made of",
          render: (_, row) => (
            <span className="parts">
              {Object.entries(worth.get(row.id)?.parts ?? {})
                .filter(([, value]) => value)
                .map(([name, value]) => (
                  <span key={name}>
                    {name} <b>{Number(value.toFixed(2))}</b>
                  </span>
                ))}
            </span>
          ),
        },
      ]}
    />
  );
}

/** A label with the typed parts marked; ranges count characters, not UTF-16 units. */
function Marked({ label, matches }: { label: string; matches: [number, number][] }): React.ReactNode {
  const letters = Array.from(label);
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const [start, end] of matches) {
    parts.push(letters.slice(at, start).join(""), <mark key={start}>{letters.slice(start, end).join("")}</mark>);
    at = end;
  }
  return [...parts, letters.slice(at).join("")];
}
