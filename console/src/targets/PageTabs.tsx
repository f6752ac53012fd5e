/** What is of a page target: its inputs, where it is, the line of HTML, what pages have reported. */

import { Tabs } from "antd";

import { FaultTable } from "./FaultTable";
import { InputTable } from "./InputTable";
import { OnThePage } from "./OnThePage";
import { usePageWindow } from "./pageWindow";
import { TargetSettings } from "./TargetSettings";
import { TryOnPage } from "./TryOnPage";
import type { TargetDocument } from "./useTargets";

export function PageTabs(props: { target: string; document: TargetDocument; isPublished: boolean; edit: (document: TargetDocument) => void }): React.ReactNode {
  const { target, document, isPublished, edit } = props;
  const page = usePageWindow();
  return (
      <Tabs
        items={[
          {
            key: "inputs",
            label: "Inputs",
            children: (
              <>
                <InputTable document={document} because={{}} tried={page.tried} change={edit} />
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
