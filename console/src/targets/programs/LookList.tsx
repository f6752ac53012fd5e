/** Looks that were sent: what stays the same in them, and whose screen each is. */

import { useMutation } from "@tanstack/react-query";
import { Button, Collapse, Empty } from "antd";

import { ErrorAlert } from "../../parts/ErrorAlert";
import { LoadError } from "../../parts/LoadError";
import { Panel } from "../../parts/Panel";
import { readable } from "../../parts/times";
import { Recognised } from "./Recognised";
import { type Condition, type Look, recognise, useLooks, useRemoveLook } from "./usePrograms";
import { KINDS, wordFor } from "./words";

export function LookList({ add }: { add: (condition: Condition) => void }): React.ReactNode {
  const looks = useLooks();
  if (looks.isError) return <LoadError error={looks.error} again={() => void looks.refetch()} />;
  const found = looks.data?.looks ?? [];
  return (
    <Panel title="Looks at screens">
      <p className="hint">
        Sent by the agent with <kbd>F4</kbd> in its finder, or by <code>anchorline desk look --after 3 --send</code>; they appear here by themselves. What differs from the look before at the same program is struck out; each can become a condition. They are kept for seven days.
      </p>
      {found.length === 0 && <Empty description="Nobody has sent a look yet: press Ctrl+Alt+A in the program, then F4." />}
      <Collapse
        items={found.map((look) => ({ key: look.id, label: <LookTitle look={look} />, children: <OneLook look={look} add={add} /> }))}
      />
    </Panel>
  );
}

export function LookTitle({ look }: { look: Look }): React.ReactNode {
  const title = look.facts.find((fact) => fact.kind === "title")?.text ?? "A window without a title";
  return (
    <>
      {title} <span className="hint">{[readable(look.at), look.machine].filter(Boolean).join(", ")}</span>
    </>
  );
}

function OneLook({ look, add }: { look: Look; add: (condition: Condition) => void }): React.ReactNode {
  const removing = useRemoveLook();
  const recognising = useMutation({ mutationFn: () => recognise(look) });
  return (
    <>
      <ul className="facts">
        {look.facts.map((fact, at) => (
          <li key={at}>
            <span className="fact-kind">{wordFor(KINDS, fact.kind)}</span>
            <span className="fact-text">
              {(fact.pieces.length ? fact.pieces : [{ text: fact.text, steady: true }]).map((piece, place) => (piece.steady ? <span key={place}>{piece.text}</span> : <del key={place}>{piece.text}</del>))}
            </span>
            <Button size="small" aria-label={`Add “${fact.text}” as a condition`} onClick={() => add(conditionOf(fact))}>
              Add
            </Button>
          </li>
        ))}
      </ul>
      <p className="page-row">
        <Button loading={recognising.isPending} onClick={() => recognising.mutate()}>
          Whose screen is it?
        </Button>
        <Button danger loading={removing.isPending} onClick={() => removing.mutate(look.id)}>
          Delete the look
        </Button>
      </p>
      {recognising.isError && <ErrorAlert error={recognising.error} />}
      {recognising.data && <Recognised answer={recognising.data} />}
    </>
  );
}

/** A condition for a fact: on its steady beginning or end, where only that stays. */
export function conditionOf(fact: Look["facts"][number]): Condition {
  const kind = fact.kind as Condition["kind"];
  const first = fact.pieces[0];
  const last = fact.pieces.at(-1);
  if (fact.pieces.length > 1 && first?.steady) return { kind, test: "begins", text: first.text };
  if (fact.pieces.length > 1 && last?.steady) return { kind, test: "ends", text: last.text };
  return { kind, test: "is", text: fact.text };
}
