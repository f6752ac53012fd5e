/** How the fields of each address are written: keys, what is read back, steps of one's own. */

import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";

import { ErrorAlert } from "../../parts/ErrorAlert";
import { Panel } from "../../parts/Panel";
import { tryTarget } from "../useTargets";
import { StepsEditor } from "./StepsEditor";
import { WritingSettings } from "./WritingSettings";
import type { ProgramDocument, ProgramProps, Step, Writing } from "./usePrograms";

export function WritingTab({ document, edit }: ProgramProps): React.ReactNode {
  const set = (at: number, writing: Writing): void => edit({ ...document, addresses: document.addresses.map((one, place) => (place === at ? { ...one, writing } : one)) });
  return (
    <>
      {document.addresses.map((address, at) => (
        <Panel key={address.key} title={`How “${address.label}” is written`} apart={at > 0}>
          {address.writing.steps.length > 0 ? (
            <StepsEditor writing={address.writing} fields={document.fields} change={(writing) => set(at, writing)} />
          ) : (
            <>
              <p>The fields that it fills are visited in the order of the picture: each is emptied, written, and read back.</p>
              <OwnSteps document={document} at={at} change={(writing) => set(at, writing)} />
            </>
          )}
          <WritingSettings writing={address.writing} name={address.label} change={(writing) => set(at, writing)} />
        </Panel>
      ))}
    </>
  );
}

/** Everything that fields in their order cannot say is said by steps: those that they make, to begin with. */
function OwnSteps(props: { document: ProgramDocument; at: number; change: (writing: Writing) => void }): React.ReactNode {
  const { document, at, change } = props;
  const address = document.addresses[at];
  const making = useMutation({
    mutationFn: (key: string) => tryTarget(document, key),
    onSuccess: ({ steps }) => address && change({ ...address.writing, steps: steps.map((one) => one.step as unknown as Step) }),
  });
  if (!address?.mapping.length) return null;
  return (
    <>
      <Button loading={making.isPending} onClick={() => making.mutate(address.key)}>
        Write the steps by hand
      </Button>
      {making.isError && <ErrorAlert error={making.error} />}
    </>
  );
}
