/** How an address is written: the table, field after field, and how the keys are pressed. */

import { useMutation } from "@tanstack/react-query";
import { Alert, Button, Select } from "antd";
import { useState } from "react";

import { ErrorAlert } from "../../parts/ErrorAlert";
import { Panel } from "../../parts/Panel";
import { tryTarget } from "../useTargets";
import { PlanSettings } from "./PlanSettings";
import { PlanTable } from "./PlanTable";
import { StepsEditor } from "./StepsEditor";
import { type Plan, type ProgramDocument, type Step, useReadyMadePlans, type ProgramProps } from "./usePrograms";

export function PlanTab({ document, edit }: ProgramProps): React.ReactNode {
  const set = (at: number, plan: Plan): void => edit({ ...document, addresses: document.addresses.map((one, place) => (place === at ? { ...one, plan } : one)) });
  return (
    <>
      {document.addresses.map((address, at) => (
        <Panel key={address.key} title={`How “${address.label}” is written`} apart={at > 0} extra={<ReadyMade document={document} at={at} edit={edit} />}>
          {address.plan.steps.length > 0 ? (
            <StepsEditor plan={address.plan} parts={document.parts} change={(plan) => set(at, plan)} />
          ) : (
            <>
              <PlanTable document={document} at={at} change={(plan) => set(at, plan)} />
              <OwnSteps document={document} at={at} change={(plan) => set(at, plan)} />
            </>
          )}
          <PlanSettings plan={address.plan} parts={document.parts} name={address.label} change={(plan) => set(at, plan)} />
        </Panel>
      ))}
    </>
  );
}

/** Everything that a table cannot say is said by steps: those that it makes, to begin with. */
function OwnSteps(props: { document: ProgramDocument; at: number; change: (plan: Plan) => void }): React.ReactNode {
  const { document, at, change } = props;
  const address = document.addresses[at];
  const making = useMutation({
    mutationFn: (key: string) => tryTarget(document, key),
    onSuccess: ({ steps }) => address && change({ ...address.plan, steps: steps.map((one) => one.step as unknown as Step) }),
  });
  if (!address?.plan.table.length) return null;
  return (
    <>
      <Button className="own-steps" loading={making.isPending} onClick={() => making.mutate(address.key)}>
        Write the steps by hand
      </Button>
      {making.isError && <ErrorAlert error={making.error} />}
    </>
  );
}

function ReadyMade({ document, at, edit }: ProgramProps & { at: number }): React.ReactNode {
  const plans = useReadyMadePlans();
  const [name, setName] = useState<string | null>(null);
  const chosen = plans.data?.plans.find((one) => one.name === name);
  const take = (): void => {
    if (!chosen) return;
    const added = chosen.parts.filter((part) => !document.parts.some((one) => one.key === part.key));
    const addresses = document.addresses.map((one, place) => (place === at ? { ...one, mapping: chosen.mapping, plan: chosen.plan } : one));
    edit({ ...document, parts: [...document.parts, ...added], addresses });
    setName(null);
  };
  return (
    <Select
      aria-label="Ready-made plan"
      placeholder="Begin with a ready-made plan"
      value={name}
      popupMatchSelectWidth={false}
      options={(plans.data?.plans ?? []).map((one) => ({ value: one.name, label: one.title }))}
      onChange={setName}
      popupRender={(menu) => (
        <>
          {menu}
          {chosen && (
            <Alert
              type="info"
              title={chosen.says}
              action={
                <Button size="small" onClick={take}>
                  Take it
                </Button>
              }
            />
          )}
        </>
      )}
    />
  );
}
