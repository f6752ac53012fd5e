/** One own layout: where it holds, what it changes, how that looks, its versions. */

import { Alert, App, Card, Select, Segmented, Skeleton } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useParams } from "react-router";

import { COMPONENTS } from "../../api/vocabulary";
import { DocumentActions } from "../../parts/documents/DocumentActions";
import { DraftActions } from "../../parts/DraftActions";
import { LoadError } from "../../parts/LoadError";
import { PageHead } from "../../parts/PageHead";
import { PublishState } from "../../parts/PublishState";
import { SaveProblem } from "../../parts/SaveProblem";
import { useDraft } from "../../parts/useDraft";
import { type Components, sampleFor, useLayout, useLayouts } from "../layouts";
import { Precedence } from "../Precedence";
import { ComponentEditor } from "./ComponentEditor";
import { nameOf } from "./changes";
import { DifferenceList } from "./DifferenceList";
import { LineEditor } from "./LineEditor";
import { problemsElsewhere } from "./problems";
import { Scope } from "./Scope";
import type { OwnDocument, OwnDraft } from "./schemas";
import { SampleChoice, SideBySide } from "./SideBySide";
import { OWN_LAYOUTS } from "./kind";
import { LISTS, usePreview, useSamples } from "./useOwn";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { Panel } from "../../parts/Panel";

const LANGUAGES = new Intl.DisplayNames(["en"], { type: "language" });

export default function OwnLayoutPage(): React.ReactNode {
  const { layout: key = "" } = useParams();
  const draft = useDraft<OwnDocument, OwnDraft>(`layouts/own/${key}`, LISTS);
  const { modal } = App.useApp();
  if (draft.kept.isError) return <LoadError error={draft.kept.error} again={() => void draft.kept.refetch()} />;
  if (!draft.kept.data || !draft.document) return <Skeleton active />;
  const { summary: state, conflicts, differences } = draft.kept.data.body;
  return (
    <>
      <PageHead
        title={draft.document.title || "Without a name"}
        about={
          <>
            One of your <Link to="/layouts/own">own layouts</Link>. It holds{" "}
            {draft.document.forms.length ? "on the forms named below, before what holds everywhere" : "everywhere"}; what it
            does not say comes from {draft.document.forms.length ? "there, then from " : ""}the shipped layout.
          </>
        }
      >
        <PublishState state={state} />
        <DocumentActions kind={OWN_LAYOUTS} document={draft.document} state={state} etag={draft.kept.data.etag} replaced={draft.discard} />
        <DraftActions
          draft={draft}
          state={state}
          again={conflicts.length > 0}
          ask={(publish) =>
            void modal.confirm({
              title: "Publish it? Forms follow at once.",
              content: <DifferenceList differences={differences} />,
              icon: null,
              width: 640,
              okText: "Publish it",
              onOk: publish,
            })
          }
        />
      </PageHead>
      <SaveProblem draft={draft} />
      {conflicts.length > 0 && (
        <Alert
          type="warning"
          showIcon
          className="space-below"
          title="Newer shipped layouts say something else about what you changed. Yours holds."
          description={
            <>
              {conflicts.map((conflict) => (
                <div key={`${conflict.country_code}${conflict.pointer}${conflict.detail}`}>{conflict.detail}</div>
              ))}
              Publish again to keep yours, or take the change out.
            </>
          }
        />
      )}
      <Card size="small" className="space-below">
        <Scope scope={draft.document} change={(part) => draft.edit({ ...(draft.document as OwnDocument), ...part })} />
      </Card>
      {draft.document.countries.length > 0 && <CountryEditor document={draft.document} edit={draft.edit} />}
    </>
  );
}

/** One country of it: what is changed on one side, how it looks on the other. */
function CountryEditor(props: { document: OwnDocument; edit: (next: OwnDocument) => void }): React.ReactNode {
  const { document, edit } = props;
  const names = new Map((useLayouts().data ?? []).map((entry) => [entry.country_code, entry.name]));
  const [chosen, setChosen] = useState("");
  const [language, setLanguage] = useState("en");
  const [typed, setComponents] = useState<Components | null>(null);
  const country = document.countries.includes(chosen) ? chosen : (document.countries[0] ?? "");
  const now = useLayout(country, "en", document.forms[0]);
  const [base, setBase] = useState<string[]>([]);
  const components = typed ?? (now.data ? sampleFor(now.data, base) : {});
  const tried = useDeferredValue(given(components, document));
  const preview = usePreview(document, country, language, tried);
  const samples = useSamples(country, document.forms[0]);
  const shown = preview.data;
  const inBase = (shown?.base ?? []).map((one) => one.component);
  if (inBase.join() !== base.join()) setBase(inBase);
  const select = (code: string): void => {
    setChosen(code);
    setComponents(null);
  };
  return (
    <>
      <div className="country-editor-bar">
        {document.countries.length <= 4 ? (
          <Segmented
            aria-label="Country to look at"
            value={country}
            onChange={select}
            options={document.countries.map((code) => ({ value: code, label: names.get(code) ?? code }))}
          />
        ) : (
          <Select
            aria-label="Country to look at"
            value={country}
            onChange={select}
            className="country-choice"
            showSearch={{ optionFilterProp: "label" }}
            options={document.countries.map((code) => ({ value: code, label: names.get(code) ?? code }))}
          />
        )}
        <Select
          aria-label="Language of the labels"
          value={language}
          onChange={setLanguage}
          popupMatchSelectWidth={false}
          options={[...new Set(["en", ...(shown?.languages ?? []), language])].map((code) => ({
            value: code,
            label: `Labels in ${LANGUAGES.of(code) ?? code}`,
          }))}
        />
        <SampleChoice
          key={country}
          samples={samples.data ?? []}
          choose={(sample) => setComponents(sample?.components ?? null)}
        />
      </div>
      {now.data && <Precedence own={now.data.own} country={now.data.name} />}
      <ErrorAlert error={preview.error} />
      {shown && (
        <>
          {problemsElsewhere(begun(document) ? shown.problems : []).map((detail) => (
            <Alert key={detail} type="warning" role="alert" showIcon title={detail} className="space-below" />
          ))}
          <div className="country-editor">
            <div className="sides">
              <Panel title="What is asked for" extra={<span className="hint">an empty label is as it was</span>}>
                <ComponentEditor document={document} preview={shown} stale={preview.isPlaceholderData} language={language} edit={edit} />
              </Panel>
              <Card
                size="small"
                title={<h2>What is written</h2>}
                extra={<Link to={`/layouts/${country}`}>try what holds now</Link>}
              >
                <LineEditor document={document} preview={shown} edit={edit} />
                {document.countries.length > 1 && (
                  <p className="hint">A changed line changes in every country here that has the same line.</p>
                )}
              </Card>
            </div>
            <div className="sides">
              <SideBySide preview={shown} components={components} change={setComponents} />
              <Panel title="What becomes different">
                <DifferenceList differences={shown.differences} />
              </Panel>
            </div>
          </div>
        </>
      )}
    </>
  );
}

function begun(document: OwnDocument): boolean {
  return document.ask.length + document.lines.length > 0;
}

/** What is given, of names that this layout knows: a record may hold extras of another one. */
function given(components: Components, document: OwnDocument): Components {
  const known = [...COMPONENTS, ...document.ask.map(nameOf)];
  return Object.fromEntries(Object.entries(components).filter(([name, value]) => value.trim() && known.includes(name)));
}
