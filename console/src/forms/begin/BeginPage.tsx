/** A new form: begun empty, from a ready-made one, a table, a copy, or a file. */

import { Segmented } from "antd";
import { useState } from "react";

import { PageHead } from "../../parts/PageHead";
import { FromCopy } from "./FromCopy";
import { FromEmpty } from "./FromEmpty";
import { FromFile } from "./FromFile";
import { FromReadyMade } from "./FromReadyMade";
import { FromTable } from "./FromTable";
import "../design/design.css";

const WAYS = {
  ready: { label: "A ready-made form", part: <FromReadyMade /> },
  empty: { label: "An empty form", part: <FromEmpty /> },
  table: { label: "The head of a table", part: <FromTable /> },
  copy: { label: "A copy", part: <FromCopy /> },
  file: { label: "A file", part: <FromFile /> },
} as const;
type Way = keyof typeof WAYS;

export default function BeginPage(): React.ReactNode {
  const [way, setWay] = useState<Way>("ready");
  return (
    <>
      <PageHead title="New form" about="Begin with something, and change it as you like. Nobody meets it before you publish it." />
      <Segmented<Way>
        className="form-parts"
        aria-label="Begin from"
        value={way}
        onChange={setWay}
        options={Object.entries(WAYS).map(([value, { label }]) => ({ value: value as Way, label }))}
      />
      {WAYS[way].part}
    </>
  );
}
