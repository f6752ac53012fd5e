/** A form from the head of a table: pasted from a spreadsheet, or of a CSV file. */

import { useMutation } from "@tanstack/react-query";
import { Button, Card, Input, Segmented, Table } from "antd";
import { useState } from "react";

import { call } from "../../api/call";
import type { ColumnGuess, FieldType, Proposal } from "../../api/schemas";
import { useComponentLabels } from "../../layouts/layouts";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { bare } from "../design/bare";
import { useFieldTypes } from "../design/fieldTypes";
import { Setting } from "../design/settings/Setting";
import { useBegin } from "./useBegin";
import { valueAt } from "../../../../embed/src/dictionary";

const MOST = 200_000;
type Kind = "guess" | "plain" | "left_out";

export function FromTable(): React.ReactNode {
  const begin = useBegin();
  const [text, setText] = useState("");
  const [title, setTitle] = useState("");
  const [kinds, setKinds] = useState<Record<number, Kind>>({});
  const propose = useMutation({
    mutationFn: (given: Record<number, Kind>) => {
      const columns = (kind: Kind): number[] => Object.entries(given).flatMap(([at, one]) => (one === kind ? [Number(at)] : []));
      const body = { text, title: title.trim(), plain: columns("plain"), left_out: columns("left_out") };
      return call<Proposal>("form-proposals", { method: "POST", body });
    },
  });
  const look = (given: Record<number, Kind>): void => {
    setKinds(given);
    propose.mutate(given);
  };
  const read = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setText((await file.slice(0, MOST).text()).slice(0, MOST));
    if (!title) setTitle(file.name.replace(/\.\w+$/, "").slice(0, 200));
  };
  const proposal = propose.data;
  return (
    <Card size="small">
      <div
        className="from-table"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void read(event.dataTransfer.files[0]);
        }}
      >
        <Setting label="Title of the form">
          {(id) => <Input id={id} value={title} maxLength={200} placeholder="Customers" onChange={(event) => setTitle(event.target.value)} />}
        </Setting>
        <Setting label="Or a CSV file" hint="It can be dropped here.">
          {(id) => <input id={id} className="file" type="file" accept=".csv,.tsv,.txt" onChange={(event) => void read(event.target.files?.[0])} />}
        </Setting>
        <Setting label="The row with the names of the columns, and some rows below it" hint="Copied from a spreadsheet. The rows tell what kind of values there are; they are not kept.">
          {(id) => (
            <Input.TextArea id={id} rows={4} maxLength={MOST} value={text} placeholder={"Name\tStreet\tPostcode\tTown"} onChange={(event) => setText(event.target.value)} />
          )}
        </Setting>
        <Button disabled={!text.trim()} loading={propose.isPending} onClick={() => look({})}>
          Look at the columns
        </Button>
      </div>
      {propose.isError && <ErrorAlert error={propose.error} />}
      {begin.isError && <ErrorAlert error={begin.error} />}
      {proposal && (
        <>
          <Guesses guesses={proposal.guesses} proposal={proposal} kinds={kinds} choose={(at, kind) => look({ ...kinds, [at]: kind })} />
          <Button type="primary" className="space-above" loading={begin.isPending} onClick={() => begin.mutate(bare(proposal.document))}>
            Begin with this form
          </Button>
        </>
      )}
    </Card>
  );
}

function Guesses(props: {
  guesses: ColumnGuess[];
  proposal: Proposal;
  kinds: Record<number, Kind>;
  choose: (at: number, kind: Kind) => void;
}): React.ReactNode {
  const { guesses, proposal, kinds, choose } = props;
  const types = useFieldTypes();
  const labels = useComponentLabels();
  const rows = guesses.map((guess, at) => ({ guess, at }));
  return (
    <Table<(typeof rows)[number]>
      className="space-above"
      rowKey="at"
      size="small"
      pagination={false}
      scroll={{ x: true }}
      dataSource={rows}
      columns={[
        { title: "Column", render: (_, { guess }) => <b>{guess.column}</b> },
        { title: "Becomes", render: (_, { guess }) => becomes(guess, proposal, types, labels) },
        { title: "Because", render: (_, { guess }) => <span className="hint">{guess.because}</span> },
        {
          title: "Take it",
          render: (_, { guess, at }) => (
            <Segmented<Kind>
              size="small"
              aria-label={`What to do with ${guess.column}`}
              value={kinds[at] ?? "guess"}
              onChange={(kind) => choose(at, kind)}
              options={[
                { value: "guess", label: "as guessed" },
                { value: "plain", label: "a field of its own" },
                { value: "left_out", label: "leave out" },
              ]}
            />
          ),
        },
      ]}
    />
  );
}

function becomes(guess: ColumnGuess, proposal: Proposal, types: FieldType[], labels: Record<string, string>): string {
  if (guess.becomes === "left_out") return "nothing of its own";
  if (guess.becomes === "field") return types.find((type) => type.name === guess.type)?.title ?? guess.type ?? "";
  const slot = proposal.document.slots.find((one) => one.key === guess.slot);
  return `${valueAt(labels, guess.component ?? "") ?? guess.component} of the address “${slot?.label ?? guess.slot}”`;
}
