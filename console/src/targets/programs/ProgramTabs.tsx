/** What is of a program target: its signature, its mapping, its plan, trying it, its runs. */

import { Tabs } from "antd";

import { PlanTab } from "./PlanTab";
import { PartsTab } from "./PartsTab";
import { ProgramSettings } from "./ProgramSettings";
import { RunTable } from "./RunTable";
import { SignatureTab } from "./SignatureTab";
import { TrialTab } from "./TrialTab";
import type { ProgramProps } from "./usePrograms";
import "./programs.css";

export function ProgramTabs({ target, document, edit }: ProgramProps & { target: string }): React.ReactNode {
  return (
    <Tabs
      items={[
        { key: "signature", label: "Recognised by", children: <SignatureTab document={document} edit={edit} /> },
        { key: "parts", label: "Parts", children: <PartsTab document={document} edit={edit} /> },
        { key: "plan", label: "Plan", children: <PlanTab document={document} edit={edit} /> },
        { key: "trial", label: "Try it", children: <TrialTab document={document} /> },
        { key: "settings", label: "Settings", children: <ProgramSettings document={document} edit={edit} /> },
        { key: "runs", label: "Runs", children: <RunTable target={target} /> },
      ]}
    />
  );
}
