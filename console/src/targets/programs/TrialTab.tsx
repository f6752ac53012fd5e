/** What a practice address comes to, and the steps by which it is written. */

import { useMutation } from "@tanstack/react-query";
import { Button, Table } from "antd";

import { ErrorAlert } from "../../parts/ErrorAlert";
import { Panel } from "../../parts/Panel";
import { tryTarget } from "../useTargets";
import type { ProgramDocument } from "./usePrograms";
import { valueAt } from "../../../../embed/src/dictionary";

export function TrialTab({ document }: { document: ProgramDocument }): React.ReactNode {
  const trying = useMutation({ mutationFn: (address: string) => tryTarget(document, address) });
  const { data } = trying;
  const values = (data?.fill.values ?? {}) as Record<string, string>;
  return (
    <>
      <p>
        A practice address is worked out here and written nowhere. To see it written, press the key of <code>anchorline desk run</code> in the program and type the word for practice addresses; F8 there is a slow walk.
      </p>
      <p className="page-row">
        {document.addresses.map((address) => (
          <Button key={address.key} type="primary" loading={trying.isPending} onClick={() => trying.mutate(address.key)}>
            Work out “{address.label}”
          </Button>
        ))}
      </p>
      {trying.isError && <ErrorAlert error={trying.error} />}
      {data && (
        <div className="program-columns" role="status">
          <Panel title={data.label}>
            <Table
              rowKey="key"
              size="small"
              pagination={false}
              dataSource={document.fields}
              columns={[
                { title: "Field", render: (_, field) => field.label ?? field.key },
                { title: "What is written", render: (_, field) => valueAt(values, field.key) || <span className="hint">nothing</span> },
              ]}
            />
            <ul className="tried-said">
              {data.fill.warnings.map((warning, at) => (
                <li key={at}>{typeof warning === "string" ? warning : JSON.stringify(warning)}</li>
              ))}
            </ul>
          </Panel>
          <Panel title="Steps">
            <ol className="step-list">
              {data.steps.map((one, at) => (
                <li key={at}>{one.says}</li>
              ))}
            </ol>
          </Panel>
        </div>
      )}
    </>
  );
}
