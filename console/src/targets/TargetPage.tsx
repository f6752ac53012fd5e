/** One target: what stands against publishing it, and what is of its kind. */

import { Alert } from "antd";
import { useParams } from "react-router";

import { DocumentHead } from "../parts/documents/DocumentHead";
import { OpenedDocument } from "../parts/documents/OpenedDocument";
import type { Edited } from "../parts/documents/useKeeping";
import { TARGETS } from "./kind";
import { PageTabs } from "./PageTabs";
import { ProgramTabs } from "./programs/ProgramTabs";
import type { AnyTarget, TargetDraft } from "./useTargets";
import "./targets.css";

export default function TargetPage(): React.ReactNode {
  const { target = "" } = useParams();
  return <OpenedDocument<AnyTarget, TargetDraft> kind={TARGETS} document={target} Page={Target} />;
}

function Target({ of: edited }: { of: Edited<AnyTarget, TargetDraft> }): React.ReactNode {
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
        <ProgramTabs target={document.key} document={document} edit={edit} of={edited} />
      ) : (
        <PageTabs target={document.key} document={document} isPublished={summary.published_version !== null} edit={edit} of={edited} />
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
