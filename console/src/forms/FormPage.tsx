/** One form: its fields and mappings on one side, the live form and its trace on the other. */

import { Alert, App, Button, Card, Segmented, Skeleton } from "antd";
import { useState } from "react";
import { Link, useParams } from "react-router";

import type { Draft, FillAnswer, FormDocument, RecordAnswer } from "../api/schemas";
import { counted } from "../parts/formatting";
import { DraftActions } from "../parts/DraftActions";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { PublishState } from "../parts/PublishState";
import { SaveProblem } from "../parts/SaveProblem";
import { type DraftState, useDraft } from "../parts/useDraft";
import { FieldTable } from "./FieldTable";
import { LiveForm } from "./LiveForm";
import { MappingTable } from "./MappingTable";
import { FillTrace, DryRunResult } from "./Trace";

// No slot has this key: keys have no blanks.
const FIELDS = "the fields";

export default function FormPage(): React.ReactNode {
  const { form: key = "" } = useParams();
  const draft = useDraft<FormDocument, Draft>(`forms/${key}`, ["forms", "overview"]);
  if (draft.kept.isError) {
    return <LoadError error={draft.kept.error} again={() => void draft.kept.refetch()} />;
  }
  if (!draft.kept.data || !draft.document) return <Skeleton active />;
  const { form } = draft.kept.data.body;
  return (
    <>
      <PageHead
        title={draft.document.title}
        about={
          form.kind === "web" && form.published_version !== null ? (
            <>
              Filled by anyone at <a href={`/f/${key}`}>/f/{key}</a>.{" "}
              <Link to={`/records?form=${key}`}>{counted(form.record_count, "record")}</Link>
            </>
          ) : (
            <Link to={`/records?form=${key}`}>{counted(form.record_count, "record")}</Link>
          )
        }
      >
        <PublishState state={form} />
        <DraftActions draft={draft} state={form} />
      </PageHead>
      <SaveProblem draft={draft} />
      <div className="two">
        <Card size="small">
          <Editor document={draft.document} edit={draft.edit} />
        </Card>
        <Tryout formKey={key} draft={draft} />
      </div>
    </>
  );
}

function Editor(props: {
  document: FormDocument;
  edit: (next: FormDocument) => void;
}): React.ReactNode {
  const { document, edit } = props;
  const [part, setPart] = useState(FIELDS);
  const at = document.slots.findIndex((slot) => slot.key === part);
  const slot = document.slots[at];
  return (
    <>
      <Segmented
        className="form-parts"
        aria-label="What to edit"
        value={slot ? part : FIELDS}
        onChange={setPart}
        options={[
          { value: FIELDS, label: "Fields" },
          ...document.slots.map(({ key, label }) => ({ value: key, label: `Mapping: ${label}` })),
        ]}
      />
      {slot ? (
        <MappingTable
          key={slot.key}
          document={document}
          slot={slot}
          edit={(next) => edit({ ...document, slots: document.slots.with(at, next) })}
        />
      ) : (
        <FieldTable document={document} edit={edit} />
      )}
    </>
  );
}

function Tryout({ formKey, draft }: { formKey: string; draft: DraftState<FormDocument, Draft> }): React.ReactNode {
  const { message } = App.useApp();
  const [filled, setFilled] = useState<{ slot: string; label: string; answer: FillAnswer } | null>(null);
  const [dryRun, setDryRun] = useState<RecordAnswer | null>(null);
  const [round, setRound] = useState(0);
  const revision = draft.kept.data?.etag ?? "";
  return (
    <div className="sides">
      <Card
        size="small"
        title={<h2>Try it: the draft as people will meet it</h2>}
        extra={
          <Button
            size="small"
            onClick={() => {
              setRound(round + 1);
              setFilled(null);
              setDryRun(null);
            }}
          >
            Start over
          </Button>
        }
      >
        {draft.changed && (
          <Alert type="warning" showIcon title="Save the draft to try your changes here." className="space-below" />
        )}
        <LiveForm
          key={`${revision}-${round}`}
          formKey={formKey}
          onFilled={setFilled}
          onDryRun={(result) => {
            setDryRun(result);
            void message.success("Nothing is wrong; nothing was kept.");
          }}
        />
      </Card>
      {filled && draft.document && <FillTrace filled={filled} document={draft.document} />}
      {dryRun && <DryRunResult answer={dryRun} />}
    </div>
  );
}
