/** Taking a whole dataset away: said what is lost, and its name typed, before anything happens. */

import { App, Button, Input, Modal } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";

import { counted } from "../parts/formatting";
import type { Dataset } from "./schemas";
import { useDatasetRemoval } from "./useData";
import { ErrorAlert } from "../parts/ErrorAlert";

export function RemoveDataset({ dataset }: { dataset: Dataset }): React.ReactNode {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const { message } = App.useApp();
  const go = useNavigate();
  const removal = useDatasetRemoval();
  const found = dataset.editions.find((edition) => edition.active)?.addresses ?? 0;
  const remove = (): void =>
    removal.mutate(dataset.name, {
      onSuccess: () => {
        void message.success(`The dataset ${dataset.name} is gone.`);
        void go("/data");
      },
    });
  return (
    <>
      <Button danger onClick={() => setOpen(true)}>
        Remove the dataset
      </Button>
      <Modal
        open={open}
        title={`Remove ${dataset.name} for good?`}
        okText="Remove it"
        okButtonProps={{ danger: true, disabled: typed !== dataset.name, loading: removal.isPending }}
        cancelText="Keep it"
        onOk={remove}
        onCancel={() => setOpen(false)}
        destroyOnHidden
      >
        <p>
          {counted(dataset.editions.length, "edition")} with all rows are taken away, and{" "}
          {counted(found, "address", "addresses")} will not be found any more. It cannot be brought back. Records
          that were captured from it stay as they are.
        </p>
        <label htmlFor="remove-dataset">
          Type <b>{dataset.name}</b> to go on
        </label>
        <Input id="remove-dataset" value={typed} autoComplete="off" onChange={(event) => setTyped(event.target.value)} />
        {removal.isError && (
          <ErrorAlert error={removal.error} />
        )}
      </Modal>
    </>
  );
}
