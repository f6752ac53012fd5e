/** One own layout: where it holds, what it changes, how that looks, its versions. */

import { Alert, Card, Select, Segmented } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useParams } from "react-router";

import { COMPONENTS } from "../../api/vocabulary";
import { DocumentHead } from "../../parts/documents/DocumentHead";
import { OpenedDocument } from "../../parts/documents/OpenedDocument";
import type { Edited } from "../../parts/documents/useKeeping";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { Panel } from "../../parts/Panel";
import { type Components, sampleFor, useLayout, useLayouts } from "../layouts";
import { Precedence } from "../Precedence";
import { ComponentEditor } from "./ComponentEditor";
import { nameOf } from "./changes";
import { DifferenceList } from "./DifferenceList";
import { OWN_LAYOUTS } from "./kind";
import { LineEditor } from "./LineEditor";
import { problemsElsewhere } from "./problems";
import { Scope } from "./Scope";
import type { Conflict, OwnDocument, OwnDraft } from "./schemas";
import { SampleChoice, SideBySide } from "./SideBySide";
import { usePreview, useSamples } from "./useOwn";

const LANGUAGES = new Intl.DisplayNames(["en"], { type: "language" });

export default function OwnLayoutPage(): React.ReactNode {
  const { layout = "" } = useParams();
  return <OpenedDocument<OwnDocument, OwnDraft> kind={OWN_LAYOUTS} document={layout} Page={OwnLayout} />;
}

function OwnLayout({ of: edited }: { of: Edited<OwnDocument, OwnDraft> }): React.ReactNode {
  const { document, edit, keeper } = edited;
  const { conflicts } = keeper.kept.body;
  const isForForms = document.forms.length > 0;
  return (
    <div className="document">
      <DocumentHead
        kind={OWN_LAYOUTS}
        of={edited}
        again={conflicts.length > 0}
        about={
          <>
            One of your <Link to="/layouts/own">own layouts</Link>. It holds{" "}
            {isForForms ? "on the forms named below, before what holds everywhere" : "everywhere"}; what it does not say
            comes from {isForForms ? "there, then from " : ""}the shipped layout.
          </>
        }
      />
      <Conflicts conflicts={conflicts} />
      <Card size="small" className="space-below">
        <Scope scope={document} change={(part) => edit({ ...document, ...part })} />
      </Card>
      {document.countries.length > 0 && <CountryEditor document={document} edit={edit} />}
    </div>
  );
}

function Conflicts({ conflicts }: { conflicts: readonly Conflict[] }): React.ReactNode {
  if (!conflicts.length) return null;
  return (
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
