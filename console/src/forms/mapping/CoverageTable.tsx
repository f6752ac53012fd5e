/** A coverage run at a glance: each cell is a field in a country, drawn by what became of it. */

import { Button } from "antd";
import { useState } from "react";
import { Link } from "react-router";

import type * as api from "../../../../embed/src/api";
import { useComponentLabels } from "../../layouts/layouts";
import type { Sample } from "./useMapping";
import { valueAt } from "../../../../embed/src/dictionary";

type Run = api.CoverageRun;
const STATES = ["filled", "shortened", "lost", "wrong", "empty"] as const;
const SAYS: Record<(typeof STATES)[number], string> = {
  filled: "as it is",
  shortened: "abbreviated",
  lost: "something lost",
  wrong: "refused by the field",
  empty: "nothing for it",
};

const IN_A_WORD = { wrong: "refused", lost: "lost", shortened: "abbr." };

export function CoverageTable(props: { run: Run; before: Run | undefined; tryOut: (sample: Sample) => void }): React.ReactNode {
  const { run, before, tryOut } = props;
  const labels = useComponentLabels();
  const [open, setOpen] = useState<{ field: string; country: string } | null>(null);
  const countries = Object.keys(run.addresses);
  const examples = run.examples.filter((one) => !open || (one.field === open.field && one.country_code === open.country));
  return (
    <>
      <p className="coverage-totals">
        {STATES.map((state) => (
          <span key={state} className={`state is-${state}`}>
            <span className="swatch" aria-hidden /> {SAYS[state]}: <b>{(run.totals[state] ?? 0).toLocaleString("en")}</b>
            <Difference run={run} before={before} state={state} />
          </span>
        ))}
      </p>
      <div className="coverage-scroll">
        <table className="coverage">
          <thead>
            <tr>
              <th scope="col">Field</th>
              {countries.map((code) => (
                <th key={code} scope="col">
                  {code}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {run.fields.map((field) => (
              <tr key={field.key}>
                <th scope="row">{field.label}</th>
                {countries.map((code) => (
                  <td key={code}>
                    <Cell cell={valueAt(field.cells, code)} name={`${field.label}, ${code}`} open={() => setOpen({ field: field.key, country: code })} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {Object.entries(run.untaken).length > 0 && (
        <p className="hint">
          No rule takes {Object.entries(run.untaken).map(([name, counts]) => `${(valueAt(labels, name) ?? name).toLowerCase()} (${Object.entries(counts).map(([code, count]) => `${code} ${count}`).join(", ")})`).join("; ")}.
        </p>
      )}
      {examples.length > 0 && (
        <>
          <h3>
            {open ? `The worst of ${run.fields.find((one) => one.key === open.field)?.label}, ${open.country}` : "The worst"}
            {open && (
              <Button type="link" size="small" onClick={() => setOpen(null)}>
                show all
              </Button>
            )}
          </h3>
          <ul className="plain worst">
            {examples.slice(0, 12).map((one, at) => (
              <li key={at}>
                <span className={`state is-${one.state}`}>
                  <span className="swatch" aria-hidden /> {SAYS[one.state]}
                </span>
                <bdi>{one.label}</bdi>
                <span className="hint">{one.detail}</span>
                <Where example={one} source={run.source} tryOut={tryOut} />
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

/** Where an address is found again: to be tried, as a record, or as a row of a file. */
function Where(props: { example: api.CoverageExample; source: string; tryOut: (sample: Sample) => void }): React.ReactNode {
  const { example, source, tryOut } = props;
  const { address_id: id, country_code, label } = example;
  if (source === "records") return <Link to={`/records/${id}`}>Open the record</Link>;
  if (source === "rows") return <span className="hint">row {id}</span>;
  return (
    <Button size="small" onClick={() => tryOut({ which: "worst", country_code, id, label })}>
      Try it
    </Button>
  );
}

function Difference({ run, before, state }: { run: Run; before: Run | undefined; state: string }): React.ReactNode {
  if (!before) return null;
  const difference = (run.totals[state] ?? 0) - (before.totals[state] ?? 0);
  if (!difference) return null;
  return (
    <span className="hint">
      {" "}
      ({difference > 0 ? "+" : "−"}
      {Math.abs(difference).toLocaleString("en")} since the run before)
    </span>
  );
}

/** One bar of a cell: its length is the share of addresses in each state. */
function Cell({ cell, name, open }: { cell: api.CoverageCell | undefined; name: string; open: () => void }): React.ReactNode {
  if (!cell) return <span className="hint">–</span>;
  const all = STATES.reduce((sum, state) => sum + cell[state], 0) || 1;
  const told = STATES.filter((state) => cell[state]).map((state) => `${cell[state].toLocaleString("en")} ${SAYS[state]}`).join(", ");
  const worst = (["wrong", "lost", "shortened"] as const).find((state) => cell[state]);
  return (
    <button type="button" className="coverage-cell" title={told} onClick={open}>
      <span className="visually-hidden">
        {name}: {told}
      </span>
      <span className="bar" aria-hidden>
        {STATES.map((state) => cell[state] > 0 && <span key={state} className={`is-${state}`} style={{ flexGrow: Math.max(cell[state] / all, 0.04) }} />)}
      </span>
      <span className="number">
        {worst ? `${cell[worst].toLocaleString("en")} ${IN_A_WORD[worst]}` : `${Math.round((100 * cell.filled) / all)} %`}
      </span>
    </button>
  );
}
