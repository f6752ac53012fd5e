/** What an edition changes against another: counts, components, towns, samples. */

import { Card, Table, Tabs } from "antd";

import { count, share } from "../parts/formatting";
import type { Comparison, Difference, DifferenceKind, TownDifferences } from "./schemas";

const KINDS: { kind: DifferenceKind; title: string }[] = [
  { kind: "added", title: "Added" },
  { kind: "gone", title: "Gone" },
  { kind: "changed", title: "Changed" },
  { kind: "moved", title: "Moved" },
];

export function ComparisonView({ comparison }: { comparison: Comparison }): React.ReactNode {
  const changes = Object.entries(comparison.components);
  const shown = KINDS.filter(({ kind }) => comparison.samples[kind].length);
  return (
    <>
      <div className="figures">
        {KINDS.map(({ kind, title }) => (
          <Card key={kind} className="figure" size="small">
            <h3>{title}</h3>
            <strong>{count(comparison[kind])}</strong>
            <p>
              {kind === "moved" ? `by more than ${comparison.moved_m} m, ` : ""}
              {share(comparison[kind], comparison.before)} of the {count(comparison.before)} before
            </p>
          </Card>
        ))}
      </div>
      {changes.length > 0 && (
        <p>
          Changed in: {changes.map(([name, number]) => `${name} (${count(number)})`).join(", ")}.
        </p>
      )}
      {shown.length > 0 && (
        <div className="side-by-side">
          <section>
            <h3>By town</h3>
            <Towns comparison={comparison} />
          </section>
          <section>
            <h3>Samples</h3>
            <Tabs
              size="small"
              items={shown.map(({ kind, title }) => ({
                key: kind,
                label: title,
                children: <Samples samples={comparison.samples[kind]} total={comparison[kind]} />,
              }))}
            />
          </section>
        </div>
      )}
    </>
  );
}

function Towns({ comparison }: { comparison: Comparison }): React.ReactNode {
  return (
    <>
      <Table<TownDifferences>
        rowKey={(town) => `${town.country_code} ${town.town}`}
        size="small"
        dataSource={comparison.towns}
        pagination={{ pageSize: 10, hideOnSinglePage: true, size: "small", showSizeChanger: false }}
        columns={[
          {
            title: "Town",
            render: (_, town) => (
              <>
                <span dir="auto">{town.town || "(no town)"}</span> <span className="key">{town.country_code}</span>
              </>
            ),
          },
          ...KINDS.map(({ kind, title }) => ({
            title,
            align: "right" as const,
            render: (_: unknown, town: TownDifferences) => count(town[kind]),
          })),
        ]}
      />
      {comparison.towns_more > 0 && <p>{count(comparison.towns_more)} more towns with fewer differences.</p>}
    </>
  );
}

function Samples({ samples, total }: { samples: Difference[]; total: number }): React.ReactNode {
  return (
    <>
      <ul className="differences">
        {samples.map((sample) => (
          <li key={sample.id}>
            {sample.before && <del dir="auto">{sample.before}</del>}
            {sample.after && <ins dir="auto">{sample.after}</ins>}
            <div className="key">
              {[
                sample.id,
                sample.components.join(", "),
                sample.moved_m ? `${sample.moved_m.toLocaleString("en")} m away` : "",
              ]
                .filter(Boolean)
                .join(" · ")}
            </div>
          </li>
        ))}
      </ul>
      {total > samples.length && <p className="hint">{`${samples.length} of ${count(total)}, from all over the data`}</p>}
    </>
  );
}
