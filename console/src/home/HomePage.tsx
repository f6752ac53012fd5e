/** Where things stand, and what to do next. */

import { useQuery } from "@tanstack/react-query";
import { Card, Skeleton } from "antd";
import { Link } from "react-router";

import { call } from "../api/call";
import type { Stand } from "../api/shapes";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { nextSteps } from "./nextSteps";

export default function HomePage(): React.ReactNode {
  const stand = useQuery({ queryKey: ["stand"], queryFn: () => call<Stand>("stand") });
  if (stand.isError) return <LoadError error={stand.error} again={() => void stand.refetch()} />;
  return (
    <>
      <PageHead title="Where things stand" />
      {stand.isPending ? <Skeleton active /> : <Figures stand={stand.data} />}
      {stand.data && (
        <Card style={{ marginTop: 16 }}>
          <h2 style={{ marginTop: 0, fontSize: "1.1rem" }}>What to do next</h2>
          <ul style={{ paddingInlineStart: "1.2rem", margin: 0, lineHeight: 2 }}>
            {nextSteps(stand.data).map((step) => (
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

function Figures({ stand }: { stand: Stand }): React.ReactNode {
  const addresses = stand.editions.reduce((sum, edition) => sum + edition.addresses, 0);
  const countries = new Set(stand.editions.flatMap((edition) => edition.countries));
  const share = stand.captured ? Math.round((100 * stand.picked) / stand.captured) : null;
  return (
    <div className="formatting">
      <Figure
        title="Addresses that can be found"
        value={addresses.toLocaleString("en")}
        about={
          stand.editions.length
            ? `${countries.size} ${countries.size === 1 ? "country" : "countries"}; ${stand.editions
                .map((e) => `${e.dataset}, edition ${e.number}`)
                .join("; ")}`
            : "No reference data has been loaded yet."
        }
      />
      <Figure
        title="Forms published"
        value={`${stand.forms_published} of ${stand.forms}`}
        about={
          stand.drafts_waiting
            ? `${stand.drafts_waiting} with changes that are not published`
            : "No changes wait to be published"
        }
      />
      <Figure
        title="Records"
        value={stand.records.toLocaleString("en")}
        about={`${stand.records_last_week.toLocaleString("en")} in the last seven days`}
      />
      <Figure
        title="Addresses picked, not typed"
        value={share === null ? "–" : `${share} %`}
        about={
          stand.captured
            ? `Of the last ${stand.captured} captured; ${stand.picked - stand.picked_unchanged} of the picked ones were corrected by hand`
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
