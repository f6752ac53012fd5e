/** Switching on, for some hours, that question and answer are kept: for finding an error. */

import { Alert, Button, Select } from "antd";
import { useState } from "react";

import type * as api from "../../../embed/src/api";
import { useForms } from "../forms/useForms";
import { useKeys } from "../keys/useKeys";
import { ErrorAlert } from "../parts/ErrorAlert";
import { readable } from "../parts/times";
import { useTargets } from "../targets/useTargets";
import { useObservations, useObserve } from "./useActivity";

const HOURS = [1, 2, 8, 24].map((value) => ({ value, label: value === 1 ? "for an hour" : `for ${value} hours` }));
type Kind = api.ObserveRequest["kind"];

export function Observing(): React.ReactNode {
  const observed = useObservations();
  const observing = useObserve();
  const keys = useKeys();
  const targets = useTargets();
  const forms = useForms();
  const [what, setWhat] = useState<string | null>(null);
  const [hours, setHours] = useState(2);
  const choices = [
    { label: "Keys", options: (keys.data?.keys ?? []).filter((key) => key.state === "in_use").map((key) => ({ value: `key:${key.id}`, label: key.name })) },
    { label: "Pages of others", options: (targets.data?.targets ?? []).map((one) => ({ value: `target:${one.key}`, label: one.title })) },
    { label: "Forms", options: (forms.data?.forms ?? []).map((one) => ({ value: `form:${one.key}`, label: one.title })) },
  ];
  const names = new Map(choices.flatMap(({ options }) => options).map((one) => [one.value, one.label]));
  const set = (value: string, wanted: number): void => {
    const [kind = "key", name = ""] = value.split(/:(.*)/s);
    observing.mutate({ kind: kind as Kind, name, hours: wanted });
  };
  const now = observed.data?.observations ?? [];
  return (
    <div className="observing">
      {now.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title="What people type is kept whole at present"
          description={
            <ul className="observations">
              {now.map((one) => (
                <li key={one.kind + one.name}>
                  {names.get(`${one.kind}:${one.name}`) ?? one.name}, until {readable(one.until)}, switched on by {one.by}{" "}
                  <Button size="small" onClick={() => set(`${one.kind}:${one.name}`, 0)}>
                    End it
                  </Button>
                </li>
              ))}
            </ul>
          }
        />
      )}
      <div className="filters">
        <Select allowClear showSearch={{ optionFilterProp: "label" }} aria-label="What to observe" placeholder="Observe a key, page or form" value={what} options={choices} popupMatchSelectWidth={false} onChange={setWhat} />
        <Select aria-label="How long" value={hours} options={HOURS} onChange={setHours} />
        <Button disabled={!what} loading={observing.isPending} onClick={() => what && set(what, hours)}>
          Observe
        </Button>
        <span className="hint">Question and answer of its calls are kept whole, to find an error. It ends by itself.</span>
      </div>
      {observing.isError && <ErrorAlert error={observing.error} />}
    </div>
  );
}
