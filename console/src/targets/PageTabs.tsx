/** What is of a page target: its fields, where it is, the line of HTML, what pages have reported. */

import { Tabs } from "antd";

import { FaultTable } from "./FaultTable";
import type { Edited } from "../parts/documents/useKeeping";
import { FieldsTab } from "./fields/FieldsTab";
import { OnThePage } from "./OnThePage";
import { usePageWindow } from "./pageWindow";
import { TargetSettings } from "./TargetSettings";
import { TryOnPage } from "./TryOnPage";
import type { AnyTarget, TargetDocument, TargetDraft } from "./useTargets";
import "./programs/programs.css";

export function PageTabs(props: { target: string; document: TargetDocument; isPublished: boolean; edit: (document: TargetDocument) => void; of: Edited<AnyTarget, TargetDraft> }): React.ReactNode {
  const { target, document, isPublished, edit, of } = props;
  const page = usePageWindow();
  return (
      <Tabs
        items={[
          {
            key: "fields",
            label: "Fields",
            children: (
              <>
                <FieldsTab of={of} page={page} />
                <TryOnPage document={document} page={page} />
              </>
            ),
          },
          { key: "settings", label: "Where and how", children: <TargetSettings document={document} change={edit} /> },
          { key: "line", label: "On the page", children: <OnThePage document={document} isPublished={isPublished} /> },
          { key: "faults", label: "Mistakes reported", children: <FaultTable target={target} /> },
        ]}
      />
  );
}
