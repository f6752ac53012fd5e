/** Sending a file of reference data: which one, what it holds, and what becomes of the edition. */

import { useQueryClient } from "@tanstack/react-query";
import { Button, Input, Progress, Select } from "antd";
import { useId, useState } from "react";

import type { Job } from "./schemas";
import { type LoadOptions, sendFile } from "./upload";
import { ErrorAlert } from "../parts/ErrorAlert";
import { Panel } from "../parts/Panel";

const HOLDS = [
  { value: "whole", label: "All addresses: those not in it will be gone" },
  { value: "changes", label: "Changes: rows with an action, put or drop" },
];
const ACTIVATES = [
  { value: "rule", label: "When the rules of the dataset allow it" },
  { value: "never", label: "Only by hand" },
  { value: "always", label: "At once when it is ready" },
];

export function LoadFile(props: { dataset?: string; onSent: (job: Job) => void }): React.ReactNode {
  const [name, setName] = useState(props.dataset ?? "");
  const [file, setFile] = useState<File | null>(null);
  const [options, setOptions] = useState<LoadOptions>({ changes: false, activate: "rule" });
  const [sent, setSent] = useState<number | null>(null);
  const [refusal, setRefusal] = useState("");
  const [loads, setLoads] = useState(0);
  const queries = useQueryClient();
  const id = useId();

  const send = async (): Promise<void> => {
    if (!file) return;
    setRefusal("");
    setSent(0);
    try {
      props.onSent(await sendFile(name.trim(), file, options, setSent));
      setFile(null);
      setLoads(loads + 1); // a new input: the browser's own cannot be emptied
    } catch (error) {
      setRefusal((error as Error).message);
    } finally {
      setSent(null);
      await queries.invalidateQueries({ queryKey: ["datasets"] });
    }
  };

  return (
    <Panel title="Load a file" apart>
      <div className="load-file">
        {props.dataset === undefined && (
          <label>
            Dataset
            <Input
              value={name}
              onChange={(event) => setName(event.target.value)}
              placeholder="uk, or a new name: small letters, digits, -"
            />
          </label>
        )}
        <div className="labelled">
          <label htmlFor={`${id}-file`}>File</label>
          <input
            id={`${id}-file`}
            aria-describedby={`${id}-about`}
            key={loads}
            className="file"
            type="file"
            accept=".csv,.gz,.jsonl,.ndjson,.json,text/csv"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
          <span id={`${id}-about`} className="hint">
            CSV or JSON Lines in UTF-8, also gzipped
          </span>
        </div>
        <label>
          It holds
          <Select
            aria-label="What the file holds"
            value={options.changes ? "changes" : "whole"}
            options={HOLDS}
            onChange={(value) => setOptions({ ...options, changes: value === "changes" })}
          />
        </label>
        <label>
          The edition becomes active
          <Select
            aria-label="When the edition becomes active"
            value={options.activate}
            options={ACTIVATES}
            onChange={(activate) => setOptions({ ...options, activate })}
          />
        </label>
        <Button type="primary" disabled={!file || !name.trim()} loading={sent !== null} onClick={() => void send()}>
          {sent === null ? "Load" : "Sending"}
        </Button>
      </div>
      {sent !== null && <Progress percent={Math.floor(100 * sent)} aria-label="Sending the file" />}
      <ErrorAlert error={refusal} />
    </Panel>
  );
}
