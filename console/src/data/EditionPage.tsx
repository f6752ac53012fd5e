/** One edition: what was noticed in its rows, what it changes, and making it active. */

import { Alert, Button, Skeleton } from "antd";
import { Link, useParams } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { StateTag } from "../parts/StateTag";
import { counted, megabytes } from "../parts/formatting";
import { readable } from "../parts/times";
import { ComparisonView } from "./ComparisonView";
import { FindingTable } from "./FindingTable";
import { JobCard } from "./JobCard";
import type { Dataset, Edition } from "./schemas";
import { isOpen } from "./schemas";
import { useActivation } from "./useActivation";
import { useDataset, useEdition } from "./useData";
import { ErrorAlert } from "../parts/ErrorAlert";

export default function EditionPage(): React.ReactNode {
  const { dataset: name = "", edition: number = "" } = useParams();
  const dataset = useDataset(name);
  const settled = dataset.data?.jobs.map((job) => job.id + job.state).join() ?? "";
  const edition = useEdition(name, Number(number), `${settled} ${dataset.data?.active_edition}`);
  const failed = edition.error ?? dataset.error;
  if (failed) return <LoadError error={failed} again={() => void Promise.all([edition.refetch(), dataset.refetch()])} />;
  if (!edition.data || !dataset.data) return <Skeleton active />;
  return <Shown dataset={dataset.data} edition={edition.data} />;
}

function Shown({ dataset, edition }: { dataset: Dataset; edition: Edition }): React.ReactNode {
  const { activate, action } = useActivation(dataset);
  const run = (name: string): void => action.mutate({ number: edition.number, action: name });
  const older = edition.number < (dataset.active_edition ?? 0);
  const open = dataset.jobs.filter((job) => isOpen(job) && job.edition === edition.number);
  return (
    <>
      <PageHead
        title={
          <>
            {dataset.name}, edition {edition.number}{" "}
            {edition.active ? <StateTag tone="fine">active</StateTag> : <StateTag tone="waits">not active</StateTag>}
          </>
        }
        about={
          <>
            <Link to={`/data/${dataset.name}`}>{dataset.name}</Link> ·{" "}
            {[
              counted(edition.addresses, "address", "addresses"),
              edition.source_name,
              edition.changes_to ? `changes to edition ${edition.changes_to}` : "",
              edition.built_at ? `built ${readable(edition.built_at)}` : "",
              `index ${megabytes(edition.index_bytes)}, rows ${megabytes(edition.rows_bytes)}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </>
        }
      >
        {edition.rows_kept && (
          <Button loading={action.isPending && action.variables?.action === "rebuild"} onClick={() => run("rebuild")}>
            Build the index anew
          </Button>
        )}
        {!edition.active && (
          <Button type="primary" loading={action.isPending && action.variables?.action === "activate"} onClick={() => void activate(edition.number)}>
            {older ? "Restore it" : "Activate"}
          </Button>
        )}
      </PageHead>
      <ErrorAlert error={action.error} />
      {open.map((job) => (
        <JobCard key={job.id} job={job} />
      ))}
      <h2>What was noticed in its rows</h2>
      <FindingTable edition={edition} />
      {edition.rows_bad > 0 && edition.job && (
        <p>
          <a href={`/api/v1/jobs/${edition.job}/report`}>Download the {counted(edition.rows_bad, "row")} left out (CSV)</a>, with
          line, column and reason.
        </p>
      )}
      <Differences dataset={dataset} edition={edition} compare={() => run("compare")} />
    </>
  );
}

function Differences(props: { dataset: Dataset; edition: Edition; compare: () => void }): React.ReactNode {
  const { dataset, edition } = props;
  const comparison = edition.comparison;
  const other = dataset.active_edition !== null && dataset.active_edition !== edition.number;
  const stale = other && comparison?.base !== dataset.active_edition;
  return (
    <>
      <h2>{comparison ? `What it changes against edition ${comparison.base}` : "What it changes"}</h2>
      {stale && (
        <p>
          {comparison ? `Edition ${dataset.active_edition} is active now. ` : "It was not compared yet. "}
          <Button size="small" onClick={props.compare}>
            Compare with edition {dataset.active_edition}
          </Button>
        </p>
      )}
      {!comparison && !stale && <p>There was no other active edition to compare it with.</p>}
      {comparison && !edition.active && comparison.against.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title="More than the rules let become active by itself"
          description={comparison.against.join(" ")}
          className="space-below"
        />
      )}
      {comparison && <ComparisonView comparison={comparison} />}
    </>
  );
}
