/** How a dataset's loads are treated: what may be bad, gone, changed, moved; what is kept. */

import { Button, InputNumber, Switch } from "antd";

import { useHeld } from "../parts/useHeld";
import { useUnsaved } from "../parts/useUnsaved";
import type { Dataset, Rules } from "./schemas";
import { useRules } from "./useData";
import { ErrorAlert } from "../parts/ErrorAlert";
import { Panel } from "../parts/Panel";

const SHARES: { name: "bad_share" | "gone_share" | "changed_share" | "moved_share"; label: string }[] = [
  { name: "bad_share", label: "Rows that may be bad, %" },
  { name: "gone_share", label: "Addresses that may be gone, %" },
  { name: "changed_share", label: "… may be changed, %" },
  { name: "moved_share", label: "… may have moved, %" },
];

export function RulesCard({ dataset }: { dataset: Dataset }): React.ReactNode {
  const [edited, setEdited] = useHeld<Partial<Rules>>(`rules of ${dataset.name}`, {});
  const save = useRules(dataset.name);
  const rules = { ...dataset.rules, ...edited };
  const set = (change: Partial<Rules>): void => setEdited({ ...edited, ...change });
  const changed = Object.keys(edited).length > 0;
  useUnsaved(changed);
  return (
    <Panel title="Rules">
      <div className="load-rules">
        <label className="switch">
          <Switch
            checked={rules.automatic}
            onChange={(automatic) => set({ automatic })}
            aria-label="New editions become active by themselves"
          />
          New editions become active by themselves, within the limits
        </label>
        {SHARES.map(({ name, label }) => (
          <label key={name}>
            {label}
            <InputNumber
              min={0}
              max={100}
              step={0.5}
              value={Number((100 * rules[name]).toFixed(4))}
              onChange={(percent) => set({ [name]: (percent ?? 0) / 100 })}
            />
          </label>
        ))}
        <label>
          Moved means more than, m
          <InputNumber min={1} max={100_000} value={rules.moved_m} onChange={(m) => set({ moved_m: m ?? 50 })} />
        </label>
        <label>
          Other editions kept
          <InputNumber min={0} max={50} precision={0} value={rules.keep} onChange={(keep) => set({ keep: keep ?? 0 })} />
        </label>
      </div>
      <div className="actions">
        <Button
          type="primary"
          disabled={!changed}
          loading={save.isPending}
          onClick={() => save.mutate(rules, { onSuccess: () => setEdited({}) })}
        >
          Save rules
        </Button>
        <Button disabled={!changed} onClick={() => setEdited({})}>
          Discard changes
        </Button>
      </div>
      <ErrorAlert error={save.error} />
      {save.isSuccess && !changed && <p role="status">Rules saved.</p>}
    </Panel>
  );
}
