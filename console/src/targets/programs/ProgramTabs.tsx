/** What is of a program target: its signature, its fields, how they are written, trying it, its runs. */

import { Tabs } from "antd";

import type { Edited } from "../../parts/documents/useKeeping";
import { FieldsTab } from "../fields/FieldsTab";
import type { AnyTarget, TargetDraft } from "../useTargets";
import { ProgramSettings } from "./ProgramSettings";
import { RunTable } from "./RunTable";
import { SignatureTab } from "./SignatureTab";
import { TrialTab } from "./TrialTab";
import { WritingTab } from "./WritingTab";
import type { ProgramProps } from "./usePrograms";
import "./programs.css";

export function ProgramTabs({ target, document, edit, of }: ProgramProps & { target: string; of: Edited<AnyTarget, TargetDraft> }): React.ReactNode {
  return (
    <Tabs
      items={[
        { key: "signature", label: "Recognised by", children: <SignatureTab document={document} edit={edit} /> },
        { key: "fields", label: "Fields", children: <FieldsTab of={of} page={null} /> },
        { key: "writing", label: "Writing", children: <WritingTab document={document} edit={edit} /> },
        { key: "trial", label: "Try it", children: <TrialTab document={document} /> },
        { key: "settings", label: "Settings", children: <ProgramSettings document={document} edit={edit} /> },
        { key: "runs", label: "Runs", children: <RunTable target={target} /> },
      ]}
    />
  );
}
