/** Coverage: a mapping run over many addresses, field by field and country by country. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Empty, InputNumber, Select, Spin } from "antd";
import { useState } from "react";

import type * as api from "../../../../embed/src/api";
import { call } from "../../api/call";
import type { Slot } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { counted } from "../../parts/formatting";
import { CoverageTable } from "./CoverageTable";
import type { Mapped, MappingPlace } from "./place";
import type { Sample } from "./useMapping";

type Source = "reference" | "records" | "rows";
const SOURCES: Record<Source, { title: string; told: string }> = {
  reference: { title: "The reference data", told: "the reference data" },
  records: { title: "Addresses that were captured", told: "records" },
  rows: { title: "A file of mine", told: "a file" },
};
const OPEN = new Set(["waiting", "running", "receiving"]);

export function CoverageView(props: { place: MappingPlace; design: Mapped; slot: Slot; tryOut: (sample: Sample) => void }): React.ReactNode {
  const { place, design, slot, tryOut } = props;
  const queries = useQueryClient();
  const path = `${place.of(slot.key)}/coverage`;
  const [source, setSource] = useState<Source>("reference");
  const [most, setMost] = useState(1000);
  const [table, setTable] = useState("");
  const [job, setJob] = useState<string | null>(null);
  const runs = useQuery({ queryKey: ["coverage", path], queryFn: () => call<api.CoverageRuns>(path) });
  const start = useMutation({
    mutationFn: async () => {
      await design.now();
      return call<api.JobAnswer>(path, { method: "POST", body: { source, per_country: most, table: source === "rows" ? table : "" } });
    },
    onSuccess: (started) => setJob(started.id),
  });
  const watched = useQuery({
    queryKey: ["job", job],
    queryFn: async () => {
      const found = await call<api.JobAnswer>(`jobs/${job}`);
      if (!OPEN.has(found.state)) await queries.invalidateQueries({ queryKey: ["coverage", path] });
      return found;
    },
    enabled: job !== null,
    refetchInterval: (query) => (query.state.data && !OPEN.has(query.state.data.state) ? false : 700),
  });
  const running = job !== null && (!watched.data || OPEN.has(watched.data.state));
  const [run, before] = runs.data?.runs ?? [];
  return (
    <>
      <div className="coverage-bar">
        <Select
          aria-label="What it is run over"
          value={source}
          options={Object.entries(SOURCES).filter(([value]) => place.isForm || value !== "records").map(([value, { title }]) => ({ value: value as Source, label: title }))}
          onChange={setSource}
        />
        {source === "rows" && (
          <input
            className="file"
            type="file"
            aria-label="A CSV file whose first row names the parts of addresses"
            accept=".csv,.tsv,.txt"
            onChange={(event) => void event.target.files?.[0]?.text().then(setTable)}
          />
        )}
        <label hidden={source === "rows"}>
          at most <InputNumber aria-label="Addresses of each country" min={1} max={1_000_000} value={most} onChange={(next) => setMost(next ?? 1000)} /> of each country
        </label>
        <Button type="primary" loading={start.isPending || running} disabled={source === "rows" && !table} onClick={() => start.mutate()}>
          Run over them
        </Button>
      </div>
      {start.isError && <ErrorAlert error={start.error} />}
      {running && (
        <div role="status">
          <Spin size="small" /> {watched.data ? `${watched.data.rows_done.toLocaleString("en")} addresses so far. ${watched.data.message}` : "Waits for a worker."}
        </div>
      )}
      {watched.isError && <ErrorAlert error={watched.error} />}
      {watched.data?.state === "failed" && <p className="wrong">{watched.data.message}</p>}
      {runs.isError && <ErrorAlert error={runs.error} />}
      {runs.data && !run && !running && <Empty description="Not run yet: run it, and see what becomes of each field in each country." />}
      {run && <CoverageTable run={run} before={before && isSameSample(run, before) ? before : undefined} tryOut={tryOut} />}
      {run && (
        <p className="hint">
          {counted(total(run.addresses), "address", "addresses")} of {SOURCES[run.source as Source].told} in {run.seconds.toFixed(1)} s, with {run.version ? `version ${run.version}` : "the draft"}, by {run.made_by}.
          {run.left_out > 0 && ` ${counted(run.left_out, "row")} of countries that this address is not there for ${run.left_out === 1 ? "was" : "were"} left out.`}
        </p>
      )}
    </>
  );
}

/** Whether two runs looked at the same addresses, so that one can be held against the other. */
function isSameSample(one: api.CoverageRun, other: api.CoverageRun): boolean {
  return one.source === other.source && JSON.stringify(one.addresses) === JSON.stringify(other.addresses);
}

function total(counts: Record<string, number>): number {
  return Object.values(counts).reduce((sum, one) => sum + one, 0);
}
