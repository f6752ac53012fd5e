/** A form that is being made: an outline, the live form in the middle, settings beside it. */

import { useCallback, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import type { Place } from "../../api/call";
import type { Draft, FormDocument } from "../../api/schemas";
import { DocumentHead } from "../../parts/documents/DocumentHead";
import { OpenedDocument } from "../../parts/documents/OpenedDocument";
import { counted } from "../../parts/formatting";
import { type Design, FORMS } from "../kind";
import { MappingWorkbench } from "../mapping/MappingWorkbench";
import { mappedForm, onForm } from "../mapping/place";
import { itemOf, nameOf } from "./edits";
import { LiveDesign } from "./LiveDesign";
import { Outline } from "./Outline";
import { PastForm } from "./PastForm";
import { located } from "./places";
import { ItemSettings } from "./settings/ItemSettings";
import "./design.css";

export default function DesignPage(): React.ReactNode {
  const { form = "" } = useParams();
  return <OpenedDocument<FormDocument, Draft> kind={FORMS} document={form} Page={Designing} />;
}

function Designing({ of: design }: { of: Design }): React.ReactNode {
  const form = design.document.key;
  const [selected, setSelected] = useState("");
  const [search, setSearch] = useSearchParams();
  const mapping = search.get("mapping");
  const select = useCallback(
    (key: string) => {
      setSelected(key);
      setSearch({});
    },
    [setSearch],
  );
  const { keeper, document } = design;
  const { document: kept, problems: places, summary } = keeper.kept.body;
  const problems = located(kept, places);
  const at = (place: Place, leave: () => void): React.ReactNode => {
    const key = located(kept, [place])[0]?.key ?? "";
    const item = itemOf(kept, key);
    const go = (): void => {
      select(key);
      leave();
    };
    return (
      <button type="button" className="link" onClick={go}>
        {item ? nameOf(item) : "The form"}
      </button>
    );
  };
  return (
    <div className="design">
      <DocumentHead
        kind={FORMS}
        of={design}
        at={at}
        look={(version) => <PastForm form={form} version={version} />}
        links={
          <>
            <Link to={`/records?form=${form}`}>{counted(summary.record_count, "record")}</Link>
            {summary.kind === "web" && summary.published_version !== null && <a href={`/f/${form}`}>public page</a>}
          </>
        }
      />
      {mapping ? (
        <MappingWorkbench key={mapping} place={onForm(form)} design={mappedForm(design)} slotKey={mapping} close={() => setSearch({})} />
      ) : (
        <div className="design-panes">
          <Outline design={design} problems={problems} selected={selected} select={select} />
          <LiveDesign form={form} document={document} kept={keeper.kept.body} selected={selected} select={select} />
          <ItemSettings form={form} design={design} problems={problems} selected={selected} select={select} />
        </div>
      )}
    </div>
  );
}
