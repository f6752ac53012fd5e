/** Work on a dataset: how far it is while it runs, how it ended after. */

import { Alert, Button, Card, Flex, Popconfirm, Progress } from "antd";

import { count, counted, duration, fileSize } from "../parts/formatting";
import { readable } from "../parts/times";
import type { Job } from "./schemas";
import { isOpen } from "./schemas";
import { useCancel, useDiscardFile, useRetry } from "./useData";

const TITLES = { load: "Loading", rebuild: "Building the index of", compare: "Comparing", coverage: "Running a mapping" };
const PHASES: Record<string, string> = {
  reading: "Reading and checking rows",
  building: "Building the index",
  comparing: "Comparing with the active edition",
};

export function JobCard({ job }: { job: Job }): React.ReactNode {
  const cancel = useCancel();
  if (!isOpen(job)) return <Ended job={job} />;
  const left = job.seconds_left;
  const share = left === null || !job.seconds ? 0 : job.seconds / (job.seconds + left);
  const subject = job.source_name || (job.edition ? `edition ${job.edition}` : "a file");
  return (
    <Card
      size="small"
      title={<h2>{`${TITLES[job.kind]} ${subject}`}</h2>}
      extra={
        <Button size="small" danger loading={cancel.isPending} onClick={() => cancel.mutate(job.id)}>
          Cancel
        </Button>
      }
      className="space-below"
    >
      <Progress percent={Math.floor(100 * share)} aria-label={`Progress of ${subject}`} />
      <p role="status" className="phase">
        {[
          PHASES[job.phase] ?? (job.message || "Waits for a worker."),
          job.rows_done ? `${count(job.rows_done)} rows` : "",
          job.rows_bad ? `${count(job.rows_bad)} left out` : "",
          job.phase === "reading" && job.rows_per_second ? `${count(job.rows_per_second)} rows a second` : "",
          left === null ? "" : `about ${duration(left)} left`,
        ]
          .filter(Boolean)
          .join(" · ")}
      </p>
    </Card>
  );
}

/** How the latest work ended. */
function Ended({ job }: { job: Job }): React.ReactNode {
  const fine = job.state === "done";
  const about = [
    job.source_name,
    job.rows_done ? `${count(job.rows_done)} rows in ${duration(job.seconds)}` : "",
    `${readable(job.made_at)} by ${job.made_by}`,
  ];
  return (
    <Alert
      type={fine ? "success" : job.state === "failed" ? "error" : "info"}
      showIcon
      title={job.message}
      description={
        <>
          {about.filter(Boolean).join(" · ")}
          {job.rows_bad > 0 && (
            <>
              {" · "}
              <a href={`/api/v1/jobs/${job.id}/report`}>{`${counted(job.rows_bad, "row")} left out (CSV)`}</a>
            </>
          )}
        </>
      }
      action={job.file_bytes === null || fine ? undefined : <FileActions job={job} bytes={job.file_bytes} />}
      className="space-below"
    />
  );
}

/** What can be done with the file of a load that has not ended well. */
function FileActions({ job, bytes }: { job: Job; bytes: number }): React.ReactNode {
  const [retry, discard] = [useRetry(), useDiscardFile()];
  const failure = retry.error ?? discard.error;
  return (
    <Flex vertical gap={6} align="end">
      <Button size="small" type="primary" loading={retry.isPending} onClick={() => retry.mutate(job.id)}>
        Load it again
      </Button>
      <Popconfirm
        title={`Throw ${job.source_name || "the file"} (${fileSize(bytes)}) away?`}
        description="To load it after that, it must be sent again."
        okText="Throw it away"
        cancelText="Keep it"
        onConfirm={() => discard.mutate(job.id)}
      >
        <Button size="small" type="text" danger loading={discard.isPending}>
          {`Throw the file away (${fileSize(bytes)})`}
        </Button>
      </Popconfirm>
      {failure && <span role="alert">{failure.message}</span>}
    </Flex>
  );
}
