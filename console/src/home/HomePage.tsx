/** Where things overview, and what to do next. */

import { useQuery } from "@tanstack/react-query";
import { Card, Skeleton } from "antd";
import { Link } from "react-router";

import { call } from "../api/call";
import type { Overview } from "../api/schemas";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { nextSteps } from "./nextSteps";

export default function HomePage(): React.ReactNode {
  const overview = useQuery({ queryKey: ["overview"], queryFn: () => call<Overview>("overview") });
  if (overview.isError) return <LoadError error={overview.error} again={() => void overview.refetch()} />;
  return (
    <>
      <PageHead title="Overview" />
      {overview.isPending ? <Skeleton active /> : <Figures overview={overview.data} />}
      {overview.data && (
        <Card className="space-above next-steps">
          <h2>What to do next</h2>
          <ul>
            {nextSteps(overview.data).map((step) => (
              <li key={step.text}>
                {step.to ? <Link to={step.to}>{step.text}</Link> : step.text}
              </li>
            ))}
          </ul>
        </Card>
      )}
    </>
  );
}

function Figures({ overview }: { overview: Overview }): React.ReactNode {
  const addresses = overview.editions.reduce((sum, edition) => sum + edition.addresses, 0);
  const countries = new Set(overview.editions.flatMap((edition) => edition.countries));
  const share = overview.captured ? Math.round((100 * overview.picked) / overview.captured) : null;
  return (
    <div className="figures">
      <Figure
        title="Addresses that can be found"
        value={addresses.toLocaleString("en")}
        about={
          overview.editions.length
            ? `${countries.size} ${countries.size === 1 ? "country" : "countries"}; ${overview.editions
                .map((e) => `${e.dataset}, edition ${e.number}`)
                .join("; ")}`
            : "No reference data has been loaded yet."
        }
      />
      <Figure
        title="Forms published"
        value={`${overview.forms_published} of ${overview.forms}`}
        about={
          overview.drafts_waiting
            ? `${overview.drafts_waiting} with changes that are not published`
            : "No changes wait to be published"
        }
      />
      <Figure
        title="Records"
        value={overview.records.toLocaleString("en")}
        about={`${overview.records_last_week.toLocaleString("en")} in the last seven days`}
      />
      <Figure
        title="Addresses picked, not typed"
        value={share === null ? "–" : `${share} %`}
        about={
          overview.captured
            ? `Of the last ${overview.captured} captured; ${overview.picked - overview.picked_unchanged} of the picked ones were corrected by hand`
            : "Nothing has been captured yet"
        }
      />
    </div>
  );
}

function Figure(props: { title: string; value: string; about: string }): React.ReactNode {
  return (
    <Card className="figure" size="small">
      <h2>{props.title}</h2>
      <strong>{props.value}</strong>
      <p>{props.about}</p>
    </Card>
  );
}
