/** The lines of an address, within the country and from abroad, and their notation. */

import { Card, Select } from "antd";
import { useState } from "react";

import { type Components, type Layout, useLayouts, useLines } from "./layouts";
import { Panel } from "../parts/Panel";

const SCRIPTS = new Intl.DisplayNames(["en"], { type: "script" });

export function WrittenLines(props: { layout: Layout; form: string; components: Components }): React.ReactNode {
  const { layout, form, components } = props;
  const [from, setFrom] = useState("GB");
  const domestic = useLines(layout.country_code, form, components, null);
  const abroad = useLines(layout.country_code, form, components, from);
  const countries = useLayouts();
  return (
    <div className="sides">
      <Panel title="Written within the country">
        <Address lines={domestic.data} />
      </Panel>
      <Card
        size="small"
        title="On mail from abroad"
        extra={
          <Select
            aria-label="Posted in"
            value={from}
            onChange={setFrom}
            showSearch={{ optionFilterProp: "label" }}
            options={(countries.data ?? []).map((entry) => ({
              value: entry.country_code,
              label: `Posted in ${entry.name}`,
            }))}
            className="country-choice"
          />
        }
      >
        <Address lines={abroad.data} />
      </Card>
      <Panel title="The lines in their notation">
        {Object.entries(layout.lines).map(([script, lines]) => (
          <div key={script}>
            {Object.keys(layout.lines).length > 1 && (
              <h2 className="script">{script ? `In ${SCRIPTS.of(script) ?? script} script` : "In Latin script"}</h2>
            )}
            <ol className="notation">
              {lines.map((line) => (
                <li key={line}>
                  <code>{line}</code>
                </li>
              ))}
            </ol>
          </div>
        ))}
      </Panel>
    </div>
  );
}

function Address({ lines }: { lines: string[] | undefined }): React.ReactNode {
  if (!lines) return null;
  if (!lines.length) return <p className="hint">Nothing is written: no component that the lines name is given.</p>;
  return (
    <address className="lines" dir="auto">
      {lines.join("\n")}
    </address>
  );
}
