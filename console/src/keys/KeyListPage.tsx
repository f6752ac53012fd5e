/** All keys: who may call, for what and from where, and when they last did. */

import { Button, Empty, Popconfirm, Select, Table, Tag } from "antd";
import { useState } from "react";

import { ErrorAlert } from "../parts/ErrorAlert";
import { LoadError } from "../parts/LoadError";
import { PageHead } from "../parts/PageHead";
import { StateTag } from "../parts/StateTag";
import { readable } from "../parts/times";
import { NewKeyForm } from "./NewKeyForm";
import { Secret } from "./Secret";
import { type Key, type NewSecret, endKey, rotateKey, useKeyChange, useKeys } from "./useKeys";
import "./keys.css";

const OVERLAPS = [
  { value: 0, label: "at once" },
  { value: 24, label: "after a day" },
  { value: 168, label: "after a week" },
  { value: 720, label: "after 30 days" },
];

export default function KeyListPage(): React.ReactNode {
  const keys = useKeys();
  const [making, setMaking] = useState(false);
  const [made, setMade] = useState<NewSecret | null>(null);
  if (keys.isError) return <LoadError error={keys.error} again={() => void keys.refetch()} />;
  return (
    <>
      <PageHead title="Keys" about="What programs and pages present to the service. A secret is shown once, when it is made.">
        <Button type="primary" onClick={() => setMaking(true)}>
          New key
        </Button>
      </PageHead>
      <Table<Key>
        rowKey="id"
        loading={keys.isPending}
        dataSource={keys.data?.keys ?? []}
        pagination={false}
        scroll={{ x: true }}
        locale={{ emptyText: <Empty description="There is no key yet: make the first one." /> }}
        columns={[
          { title: "What for", render: (_, key) => <Named of={key} /> },
          { title: "State", render: (_, key) => <State of={key} /> },
          { title: "May", render: (_, key) => <May of={key} /> },
          { title: "Last used", render: (_, key) => (key.used_at ? readable(key.used_at) : "never") },
          { title: <span className="visually-hidden">What can be done</span>, render: (_, key) => key.state === "in_use" && <Actions of={key} made={setMade} /> },
        ]}
      />
      {making && (
        <NewKeyForm
          scopes={keys.data?.scopes ?? []}
          close={() => setMaking(false)}
          made={(secret) => {
            setMaking(false);
            setMade(secret);
          }}
        />
      )}
      {made && <Secret made={made} close={() => setMade(null)} />}
    </>
  );
}

function Named({ of }: { of: Key }): React.ReactNode {
  return (
    <>
      <b>{of.name}</b>
      <div className="hint">
        {of.kind === "server" ? "Program" : "Pages"} · {of.id}
        {of.created_at && ` · made ${readable(of.created_at)}`}
      </div>
    </>
  );
}

function State({ of }: { of: Key }): React.ReactNode {
  if (of.state !== "in_use") return <StateTag tone="waits">{of.state}</StateTag>;
  return (
    <>
      <StateTag tone="fine">in use</StateTag>
      {of.expires_at && <div className="hint">until {readable(of.expires_at)}</div>}
      {of.earlier_until && <div className="hint">the secret before, too, until {readable(of.earlier_until)}</div>}
    </>
  );
}

function May({ of }: { of: Key }): React.ReactNode {
  if (of.kind === "server") {
    return (
      <span className="scopes">
        {of.scopes.map((one) => (
          <Tag key={one}>{one}</Tag>
        ))}
      </span>
    );
  }
  return (
    <>
      {[...of.forms, ...of.targets].join(", ")}
      <div className="hint">from {of.origins.join(", ")}</div>
    </>
  );
}

function Actions({ of, made }: { of: Key; made: (made: NewSecret) => void }): React.ReactNode {
  const [hours, setHours] = useState(24);
  const rotating = useKeyChange(rotateKey);
  const ending = useKeyChange(endKey);
  return (
    <span className="key-actions">
      <Popconfirm
        title={`Give “${of.name}” a new secret?`}
        description={
          <label>
            The present one ends <Select aria-label="When the present secret ends" size="small" value={hours} options={OVERLAPS} onChange={setHours} />
          </label>
        }
        okText="Rotate"
        onConfirm={() => rotating.mutate({ id: of.id, hours }, { onSuccess: made })}
      >
        <Button size="small" loading={rotating.isPending} aria-label={`Rotate ${of.name}`}>
          Rotate
        </Button>
      </Popconfirm>
      <Popconfirm
        title={`End “${of.name}” for good?`}
        description="Within seconds nobody can use it any more."
        okText="End it"
        okButtonProps={{ danger: true }}
        onConfirm={() => ending.mutate(of.id)}
      >
        <Button size="small" danger loading={ending.isPending} aria-label={`End ${of.name}`}>
          End
        </Button>
      </Popconfirm>
      {rotating.isError && <ErrorAlert error={rotating.error} />}
      {ending.isError && <ErrorAlert error={ending.error} />}
    </span>
  );
}
