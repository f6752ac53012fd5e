/** One target: what stands against publishing it, and what is of its kind. */

import { useQuery } from "@tanstack/react-query";
import { Alert, App, Skeleton } from "antd";
import { useParams } from "react-router";

import { DocumentHead } from "../parts/documents/DocumentHead";
import { type Opened, opening } from "../parts/documents/opening";
import { useKeeping } from "../parts/documents/useKeeping";
import { LoadError } from "../parts/LoadError";
import { TARGETS } from "./kind";
import { PageTabs } from "./PageTabs";
import { ProgramTabs } from "./programs/ProgramTabs";
import type { AnyTarget, TargetDraft } from "./useTargets";
import "./targets.css";

export default function TargetPage(): React.ReactNode {
  const { target: key = "" } = useParams();
  const opened = useQuery(opening<AnyTarget, TargetDraft>(TARGETS, key));
  if (opened.isError) return <LoadError error={opened.error} again={() => void opened.refetch()} />;
  if (!opened.data) return <Skeleton active />;
  return <Target key={key} target={key} opened={opened.data} />;
}

function Target({ target, opened }: { target: string; opened: Opened<AnyTarget, TargetDraft> }): React.ReactNode {
  const { message } = App.useApp();
  const edited = useKeeping(TARGETS, target, opened, (sentence) => void message.info(sentence));
  const { document, edit, keeper } = edited;
  const { summary, problems, warnings } = keeper.kept.body;
  const isProgram = document.kind === "program";
  const about = isProgram ? "A program on the desktop, which anchorline desk writes into." : document.origins.join(", ") || "Say below on which web origin it is.";
  return (
    <div className="document">
      <DocumentHead kind={TARGETS} of={edited} about={about} />
      <Findings title="This stands against publishing it" type="error" places={problems} />
      <Findings title="This should be known" type="info" places={warnings} />
      {document.kind === "program" ? (
        <ProgramTabs target={target} document={document} edit={edit} />
      ) : (
        <PageTabs target={target} document={document} isPublished={summary.published_version !== null} edit={edit} />
      )}
    </div>
  );
}

function Findings(props: { title: string; type: "error" | "info"; places: readonly { pointer: string; detail: string }[] }): React.ReactNode {
  if (!props.places.length) return null;
  const description = (
    <ul className="tried-said">
      {props.places.map((one) => (
        <li key={one.pointer + one.detail}>{one.detail}</li>
      ))}
    </ul>
  );
  return <Alert className="space-below" type={props.type} showIcon title={props.title} description={description} />;
}
