/** One target: what stands against publishing it, and what is of its kind. */

import { Alert, Skeleton } from "antd";
import { useParams } from "react-router";

import { DocumentActions } from "../parts/documents/DocumentActions";
import { DraftActions } from "../parts/DraftActions";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { SaveProblem } from "../parts/SaveProblem";
import { TARGETS } from "./kind";
import { PageTabs } from "./PageTabs";
import { ProgramTabs } from "./programs/ProgramTabs";
import { useTargetDraft } from "./useTargets";
import "./targets.css";

export default function TargetPage(): React.ReactNode {
  const { target: key = "" } = useParams();
  const draft = useTargetDraft(key);
  if (draft.kept.isError) return <LoadError error={draft.kept.error} again={() => void draft.kept.refetch()} />;
  if (!draft.kept.data || !draft.document) return <Skeleton active />;
  const { summary, problems, warnings } = draft.kept.data.body;
  const { document, edit } = draft;
  const isProgram = document.kind === "program";
  const about = isProgram ? "A program on the desktop, which anchorline desk writes into." : document.origins.join(", ") || "Say below on which web origin it is.";
  return (
    <>
      <PageHead title={document.title || "Without a name"} about={about}>
        <PublishState state={summary} />
        <DocumentActions kind={TARGETS} document={document} state={summary} etag={draft.kept.data.etag} replaced={draft.discard} />
        <DraftActions draft={draft} state={summary} />
      </PageHead>
      <SaveProblem draft={draft} />
      {!draft.changed && <Findings title="This stands against publishing it" type="error" places={problems} />}
      {!draft.changed && <Findings title="This should be known" type="info" places={warnings} />}
      {document.kind === "program" ? (
        <ProgramTabs target={key} document={document} edit={edit} />
      ) : (
        <PageTabs target={key} document={document} isPublished={summary.published_version !== null} edit={edit} />
      )}
    </>
  );
}

function Findings(props: { title: string; type: "error" | "info"; places: { pointer: string; detail: string }[] }): React.ReactNode {
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
