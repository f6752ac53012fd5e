/** Where each part of an address goes: rules with live results, trying, coverage, examples. */

import { ArrowLeftOutlined } from "@ant-design/icons";
import { Alert, Button } from "antd";
import { useState } from "react";

import type { Slot } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { counted } from "../../parts/formatting";
import { changed, itemOf } from "../design/edits";
import { CoverageView } from "./CoverageView";
import { ExamplesView } from "./ExamplesView";
import { Findings } from "./Findings";
import { RuleList } from "./RuleList";
import { SampleBar } from "./SampleBar";
import { TryIt } from "./TryIt";
import { WorkbenchTabs } from "./WorkbenchTabs";
import type { Mapped, MappingPlace } from "./place";
import { ruleAt } from "./pointers";
import { type Sample, useLint, useSamples, useTried } from "./useMapping";
import "./mapping.css";

export function MappingWorkbench(props: { place: MappingPlace; design: Mapped; slotKey: string; close: () => void }): React.ReactNode {
  const { place, design, slotKey, close } = props;
  const { document, edit } = design;
  const at = document.slots.findIndex((one) => one.key === slotKey);
  const isThere = design.kept.slots.some((one) => one.key === slotKey);
  const samples = useSamples(place, slotKey, isThere);
  const [tab, setTab] = useState("rules");
  const [chosen, setChosen] = useState<Sample | null>(null);
  const sample = chosen ?? samples?.[0] ?? null;
  const tried = useTried(place, slotKey, document, sample?.id);
  const lint = useLint(place, document);
  const slot = itemOf(document, slotKey) as Slot | undefined;
  if (!slot || at < 0) {
    return <Alert type="info" title={`There is no address “${slotKey}” any more.`} action={<Button onClick={close}>{place.back}</Button>} />;
  }
  const set = (settings: Partial<Slot>): void => edit(changed(document, slotKey, settings), `${slotKey} ${Object.keys(settings).join()}`);
  const findings = (lint.data?.problems ?? []).filter((one) => one.pointer.startsWith(`/slots/${at}/`));
  const general = findings.filter((one) => ruleAt(one.pointer, at) === null && one.check !== "examples");
  const failing = findings.filter((one) => one.check === "examples");
  const tryOut = (one: Sample): void => {
    setChosen(one);
    setTab("try");
  };
  const bar = <SampleBar samples={samples ?? []} sample={sample} choose={setChosen} />;
  return (
    <section className="workbench" aria-labelledby="workbench-title">
      <div className="workbench-head">
        <Button icon={<ArrowLeftOutlined aria-hidden />} onClick={close}>
          {place.back}
        </Button>
        <h2 id="workbench-title">Where each part of “{slot.label}” goes</h2>
      </div>
      {lint.isError && <ErrorAlert error={lint.error} />}
      {tried.isError && <ErrorAlert error={tried.error} />}
      <WorkbenchTabs
        name={`The mapping of ${slot.label}`}
        chosen={tab}
        choose={setTab}
        tabs={[
          {
            key: "rules",
            label: `Rules (${slot.mapping.length})`,
            content: (
              <>
                {bar}
                <Findings findings={general} design={design} />
                <RuleList
                  place={place}
                  document={document}
                  slot={slot}
                  set={set}
                  answer={tried.data}
                  findings={findings}
                  at={at}
                  design={design}
                />
              </>
            ),
          },
          { key: "try", label: "Try it", content: <TryIt document={document} slot={slot} bar={bar} sample={sample} choose={setChosen} answer={tried.data} set={set} /> },
          { key: "coverage", label: "Coverage", content: <CoverageView place={place} design={design} slot={slot} tryOut={tryOut} /> },
          {
            key: "examples",
            label: failing.length ? `Examples (${counted(failing.length, "fails", "fail")})` : `Examples (${slot.examples?.length ?? 0})`,
            content: <ExamplesView slot={slot} set={set} findings={failing} hasRun={lint.data !== undefined} design={design} />,
          },
        ]}
      />
    </section>
  );
}
