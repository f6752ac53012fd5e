/** A form that is being made: an outline, the live form in the middle, settings beside it. */

import { useQuery } from "@tanstack/react-query";
import { App, Skeleton } from "antd";
import { useCallback, useState } from "react";
import { useParams, useSearchParams } from "react-router";

import { LoadError } from "../../parts/LoadError";
import { MappingWorkbench } from "../mapping/MappingWorkbench";
import { DesignHead } from "./DesignHead";
import { LiveDesign } from "./LiveDesign";
import { MergeDialog } from "./MergeDialog";
import { Outline } from "./Outline";
import { located } from "./places";
import { ItemSettings } from "./settings/ItemSettings";
import { type Opened, opening } from "./opening";
import { useDesign } from "./useDesign";
import { useEditors } from "./useEditors";
import { useUndoKeys } from "./useUndoKeys";
import "./design.css";

export default function DesignPage(): React.ReactNode {
  const { form = "" } = useParams();
  const opened = useQuery(opening(form));
  if (opened.isError) return <LoadError error={opened.error} again={() => void opened.refetch()} />;
  if (!opened.data) return <Skeleton active />;
  return <Designing key={form} form={form} opened={opened.data} />;
}

function Designing({ form, opened }: { form: string; opened: Opened }): React.ReactNode {
  const { message } = App.useApp();
  const design = useDesign(form, opened, (sentence) => void message.info(sentence));
  const editors = useEditors(form, design.keeper);
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
  useUndoKeys(design.undo, design.redo);
  const { keeper, document } = design;
  const problems = located(keeper.kept.body.document, keeper.kept.body.problems);
  return (
    <div className="design">
      <DesignHead form={form} design={design} editors={editors} problems={problems} select={select} />
      {mapping ? (
        <MappingWorkbench key={mapping} form={form} design={design} slotKey={mapping} close={() => setSearch({})} />
      ) : (
        <div className="design-panes">
          <Outline design={design} problems={problems} selected={selected} select={select} />
          <LiveDesign form={form} document={document} kept={keeper.kept.body} selected={selected} select={select} />
          <ItemSettings form={form} design={design} problems={problems} selected={selected} select={select} />
        </div>
      )}
      {keeper.state.status === "conflict" && (
        <MergeDialog conflicts={keeper.state.conflicts} resolve={(choices) => keeper.resolve(choices)} />
      )}
    </div>
  );
}
