/** The inputs of a page: how each is found, what it is, and why that is thought. */

import { Table } from "antd";

import { Named } from "../parts/Named";
import type { Tried } from "./pageTalk";
import type { PageInput, TargetDocument } from "./useTargets";
import { WhatItIsChoice, whatItIsTitle } from "./WhatItIsChoice";
import { LEFT, whatItIs, withChoice } from "./whatItIs";
import { valueAt } from "../../../embed/src/dictionary";

const WAYS: Record<string, string> = { css: "selector", name: "name", id: "id", autocomplete: "autofill token", label: "label", class_name: "class" };

export function InputTable(props: {
  document: TargetDocument;
  /** Why each is taken for what it is, by the inputs' keys; empty where that is not known any more. */
  because: Record<string, string>;
  /** What became of the inputs on the page that is open. */
  tried: Tried | null;
  change: (document: TargetDocument) => void;
}): React.ReactNode {
  const { document, because, tried, change } = props;
  const addresses = document.addresses ?? [];
  const seen = new Map((tried?.inputs ?? []).map((one) => [one.key, one]));
  return (
    <Table<PageInput>
      rowKey="key"
      size="small"
      pagination={false}
      scroll={{ x: true }}
      dataSource={document.inputs ?? []}
      columns={[
        { title: "Input of the page", render: (_, input) => <Named label={input.label ?? input.key} name={input.key} /> },
        {
          title: "Found by",
          render: (_, input) => (
            <span className="ways">
              {(input.find ?? []).map((way, place) => (
                <span key={place}>{Object.entries(way).flatMap(([name, value]) => (value ? `${WAYS[name] ?? name} “${value}”` : [])).join("")}</span>
              ))}
            </span>
          ),
        },
        ...addresses.map((address, at) => ({
          title: whatItIsTitle(address, addresses.length > 1),
          render: (_: unknown, input: PageInput) => (
              <>
                <WhatItIsChoice address={address} of={input} isOneOfSeveral={addresses.length > 1} change={(next) => change(withChoice(document, at, input.key, next))} />
                {at === 0 && valueAt(because, input.key) && <div className="hint">{valueAt(because, input.key)}</div>}
              </>
            ),
        })),
        ...(tried
          ? [
              {
                title: "On the page now",
                render: (_: unknown, input: PageInput) => {
                  const one = seen.get(input.key);
                  if (!one) return "";
                  if (!one.found) return <span className="not-found">not found</span>;
                  return one.kept || <span className="hint">{addresses.some((address) => whatItIs(address, input.key) !== LEFT) ? "empty" : "left alone"}</span>;
                },
              },
            ]
          : []),
      ]}
    />
  );
}
