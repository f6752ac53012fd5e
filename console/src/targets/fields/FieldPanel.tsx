/** The settings of one field: what it is, how it is found or reached, how it is emptied. */

import { DeleteOutlined } from "@ant-design/icons";
import { Button, Checkbox, Form, Input, InputNumber, Select } from "antd";

import { Panel } from "../../parts/Panel";
import type { PageWindow } from "../pageWindow";
import type { AnyTarget, PageField, TargetField } from "../useTargets";
import type { ProgramField } from "../programs/usePrograms";
import { WhatItIsChoice } from "../WhatItIsChoice";
import { withChoice } from "../whatItIs";
import { FoundBy } from "./FoundBy";
import { ReachSettings } from "./ReachSettings";
import { addressesOf, withField, withoutField } from "./addresses";
import { TYPED, TYPES, fieldName } from "./words";

export function FieldPanel(props: { target: AnyTarget; field: TargetField; edit: (target: AnyTarget) => void; page: PageWindow | null; close: () => void }): React.ReactNode {
  const { target, field, edit, page, close } = props;
  const set = (changed: Partial<TargetField>): void => edit(withField(target, field.key, changed));
  const type = field.type ?? "text";
  return (
    <Panel title={fieldName(field)} extra={<Button onClick={close}>Close</Button>}>
      <Form layout="vertical" requiredMark={false}>
        <Form.Item label="What it is called here" htmlFor="field-label" extra={`Its key: ${field.key}`}>
          <Input id="field-label" value={field.label ?? ""} maxLength={200} onChange={(event) => set({ label: event.target.value })} />
        </Form.Item>
        <Form.Item label="What it is" htmlFor="field-type">
          <Select id="field-type" value={type} options={TYPES} onChange={(next) => set({ type: next, ...(TYPED.has(next) ? {} : { several_lines: false }) })} />
        </Form.Item>
        {TYPED.has(type) && (
          <>
            <Form.Item>
              <Checkbox checked={field.several_lines ?? false} onChange={(event) => set({ several_lines: event.target.checked })}>
                It takes several lines
              </Checkbox>
            </Form.Item>
            <Form.Item label="Characters that it takes" htmlFor="field-length">
              <InputNumber id="field-length" className="whole-width" min={1} max={10000} value={field.max_length ?? null} placeholder="not known" onChange={(value) => set({ max_length: value })} />
            </Form.Item>
          </>
        )}
        {(field.options ?? []).length > 0 && <p className="hint">Its options: {(field.options ?? []).slice(0, 6).map((one) => one.text || one.value).filter(Boolean).join(", ")}{(field.options ?? []).length > 6 && `, and ${(field.options ?? []).length - 6} more`}</p>}
        {addressesOf(target).map((address, at) => (
          <Form.Item key={address.key} label={addressesOf(target).length > 1 ? `What goes into it of “${address.label}”` : "What goes into it"}>
            <WhatItIsChoice address={address} of={field} isOneOfSeveral={addressesOf(target).length > 1} change={(next) => edit(withChoice(target as never, at, field.key, next))} />
          </Form.Item>
        ))}
        {target.kind === "program" ? <ReachSettings field={field as ProgramField} set={set} /> : <FoundBy field={field as PageField} set={set} page={page} />}
        <Button
          danger
          icon={<DeleteOutlined aria-hidden />}
          onClick={() => {
            edit(withoutField(target, field.key));
            close();
          }}
        >
          Take it out
        </Button>
      </Form>
    </Panel>
  );
}
