/** One dataset: its editions, the work that is going on, loading, rules. */

import { Skeleton } from "antd";
import { Link, useParams } from "react-router";

import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { counted } from "../parts/formatting";
import { EditionTable } from "./EditionTable";
import { JobCard } from "./JobCard";
import { LoadFile } from "./LoadFile";
import { RemoveDataset } from "./RemoveDataset";
import { RulesCard } from "./RulesCard";
import { isOpen } from "./schemas";
import { useDataset } from "./useData";

export default function DatasetPage(): React.ReactNode {
  const { dataset: name = "" } = useParams();
  const dataset = useDataset(name);
  if (dataset.isError) return <LoadError error={dataset.error} again={() => void dataset.refetch()} />;
  if (dataset.isPending) return <Skeleton active />;
  const { data } = dataset;
  const open = data.jobs.filter(isOpen).reverse();
  const latest = open.length ? undefined : data.jobs[0];
  // How the last work ended, and whatever still keeps a file that somebody has to decide on.
  const ended = data.jobs.filter((job) => job === latest || (!isOpen(job) && job.file_bytes !== null));
  const active = data.editions.find((edition) => edition.active);
  return (
    <>
      <PageHead
        title={data.name}
        about={
          <>
            <Link to="/data">Reference data</Link> ·{" "}
            {active
              ? `edition ${active.number} is active, ${counted(active.addresses, "address", "addresses")}`
              : "no edition is active: nothing of it can be found"}
          </>
        }
      >
        <RemoveDataset dataset={data} />
      </PageHead>
      {open.map((job) => (
        <JobCard key={job.id} job={job} />
      ))}
      {ended.map((job) => (
        <JobCard key={job.id} job={job} />
      ))}
      <EditionTable dataset={data} />
      <LoadFile key={data.name} dataset={data.name} onSent={() => undefined} />
      <RulesCard dataset={data} />
    </>
  );
}
